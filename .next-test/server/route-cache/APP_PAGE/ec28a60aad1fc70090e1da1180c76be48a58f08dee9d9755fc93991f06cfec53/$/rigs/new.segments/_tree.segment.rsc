:HL["/_next/static/chunks/0e63_dl1-r4ih.css","style"]
:HL["/_next/static/chunks/1fnseddzr9i5p.css","style"]
:HL["/_next/static/chunks/1qxgv-8wv40td.css","style"]
:HC["/",""]
3:[["children",{"s":"__PAGE__","h":160}]]
2:[["children",{"s":"new","h":96,"c":"$Q3"}]]
1:[["children",{"s":"rigs","h":96,"c":"$Q2"}]]
0:{"b":"1XHOdgeLO5uVbD0zIt1Xu","t":{"t":{"s":"","h":80,"c":"$Q1"}}}
