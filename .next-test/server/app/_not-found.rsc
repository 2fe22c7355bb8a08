1:"$Sreact.fragment"
2:"/_next/static/chunks/2-jrvol-q-myx.js"
3:"/_next/static/chunks/176384hg1w-rj.js"
4:"ColorSchemeScript"
5:I[85417,["$2","$3"],"$4"]
6:I[95282,["$2","$3"],"Providers"]
7:I[39756,["$2","$3"],"default"]
8:I[37457,["$2","$3"],"default"]
c:I[97367,["$2","$3"],"OutletBoundary"]
d:"$Sreact.suspense"
f:"ViewportBoundary"
10:I[97367,["$2","$3"],"$f"]
12:"MetadataBoundary"
13:I[97367,["$2","$3"],"$12"]
15:I[68027,["$2","$3"],"default",1]
:HL["/_next/static/chunks/0e63_dl1-r4ih.css","style"]
:HL["/_next/static/chunks/1fnseddzr9i5p.css","style"]
:HL["/_next/static/chunks/1qxgv-8wv40td.css","style"]
a:X
b:[["children",{"s":"__PAGE__","h":512,"d":{"r":["$","$1","c",{"children":[["$","main",null,{"className":"page","children":[["$","h1",null,{"children":"There is nothing here."}],["$","p",null,{"children":["The rig may have another address now. ",["$","a",null,{"href":"/","children":"All rigs"}]]}]]}],null,["$","$Lc",null,{"children":["$","$d",null,{"name":"Next.MetadataOutlet","children":"$@e"}]}]]}],"p":false,"v":null}}]]
9:[["children",{"s":"/_not-found","h":512,"d":{"r":["$","$1","c",{"children":[null,["$","$L7",null,{"parallelRouterKey":"children","error":"$undefined","errorStyles":"$undefined","errorScripts":"$undefined","template":["$","$L8",null,{}],"templateStyles":"$undefined","templateScripts":"$undefined","notFound":"$undefined","forbidden":"$undefined","unauthorized":"$undefined"}]]}],"p":false,"v":"$a"},"c":"$Qb"}]]
0:{"P":null,"c":["","_not-found"],"q":"","i":false,"t":{"t":{"s":"","h":528,"d":{"r":["$","$1","c",{"children":[[["$","link","0",{"rel":"stylesheet","href":"/_next/static/chunks/0e63_dl1-r4ih.css","precedence":"next","crossOrigin":"$undefined","nonce":"$undefined"}],["$","link","1",{"rel":"stylesheet","href":"/_next/static/chunks/1fnseddzr9i5p.css","precedence":"next","crossOrigin":"$undefined","nonce":"$undefined"}],["$","link","2",{"rel":"stylesheet","href":"/_next/static/chunks/1qxgv-8wv40td.css","precedence":"next","crossOrigin":"$undefined","nonce":"$undefined"}],["$","script","script-0",{"src":"/_next/static/chunks/2-jrvol-q-myx.js","async":true,"nonce":"$undefined"}],["$","script","script-1",{"src":"/_next/static/chunks/176384hg1w-rj.js","async":true,"nonce":"$undefined"}]],["$","html",null,{"lang":"en","suppressHydrationWarning":true,"data-mantine-color-scheme":"light","children":[["$","head",null,{"children":["$","$L5",null,{"defaultColorScheme":"auto"}]}],["$","body",null,{"children":["$","$L6",null,{"children":["$","$L7",null,{"parallelRouterKey":"children","error":"$undefined","errorStyles":"$undefined","errorScripts":"$undefined","template":["$","$L8",null,{}],"templateStyles":"$undefined","templateScripts":"$undefined","notFound":[["$","main",null,{"className":"page","children":[["$","h1",null,{"children":"There is nothing here."}],["$","p",null,{"children":["The rig may have another address now. ",["$","a",null,{"href":"/","children":"All rigs"}]]}]]}],[]],"forbidden":"$undefined","unauthorized":"$undefined"}]}]}]]}]]}],"p":false,"v":null},"c":"$Q9"},"h":{"r":["$","$1","h",{"children":[["$","meta",null,{"name":"robots","content":"noindex"}],["$","$L10",null,{"children":"$L11"}],["$","$L13",null,{"children":[["$","div",null,{"hidden":true,"children":["$","$d",null,{"name":"Next.Metadata","children":"$L14"}]}],null]}],null]}],"p":false,"v":null}},"m":"$undefined","G":["$15",[["$","link","0",{"rel":"stylesheet","href":"/_next/static/chunks/0e63_dl1-r4ih.css","precedence":"next","crossOrigin":"$undefined","nonce":"$undefined"}],["$","link","1",{"rel":"stylesheet","href":"/_next/static/chunks/1fnseddzr9i5p.css","precedence":"next","crossOrigin":"$undefined","nonce":"$undefined"}],["$","link","2",{"rel":"stylesheet","href":"/_next/static/chunks/1qxgv-8wv40td.css","precedence":"next","crossOrigin":"$undefined","nonce":"$undefined"}]]],"S":true,"r":"$undefined","s":"$undefined","a":"$undefined","l":"$undefined","p":"$undefined","d":"$undefined","b":"1XHOdgeLO5uVbD0zIt1Xu"}
a:C
11:[["$","meta","0",{"charSet":"utf-8"}],["$","meta","1",{"name":"viewport","content":"width=device-width, initial-scale=1"}]]
16:I[27201,["$2","$3"],"IconMark"]
e:null
14:[["$","title","0",{"children":"Yantrel"}],["$","meta","1",{"name":"description","content":"Designs, checks and documents touring guitar rigs."}],["$","link","2",{"rel":"icon","href":"/icon.svg?icon.1yoa6cnz52xse.svg","sizes":"any","type":"image/svg+xml"}],["$","$L16","3",{}]]
