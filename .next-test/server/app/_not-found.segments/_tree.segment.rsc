:HL["/_next/static/chunks/0e63_dl1-r4ih.css","style"]
:HL["/_next/static/chunks/1fnseddzr9i5p.css","style"]
:HL["/_next/static/chunks/2dovm2gy0e6cf.css","style"]
2:[["children",{"s":"__PAGE__","h":160}]]
1:[["children",{"s":"/_not-found","h":96,"c":"$Q2"}]]
0:{"b":"VIy8AsBpMJHsX8UdTJOc8","t":{"t":{"s":"","h":80,"c":"$Q1"}}}
