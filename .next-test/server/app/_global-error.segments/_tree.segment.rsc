1:[["children",{"s":"__PAGE__","h":176}]]
0:{"b":"1XHOdgeLO5uVbD0zIt1Xu","t":{"t":{"s":"","h":80,"c":"$Q1"}}}
