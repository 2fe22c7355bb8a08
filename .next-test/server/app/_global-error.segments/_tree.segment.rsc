1:[["children",{"s":"__PAGE__","h":176}]]
0:{"b":"VIy8AsBpMJHsX8UdTJOc8","t":{"t":{"s":"","h":80,"c":"$Q1"}}}
