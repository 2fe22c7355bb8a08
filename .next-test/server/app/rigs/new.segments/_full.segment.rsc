1:"$Sreact.fragment"
2:"/_next/static/chunks/2-jrvol-q-myx.js"
3:"/_next/static/chunks/176384hg1w-rj.js"
4:"ColorSchemeScript"
5:I[85417,["$2","$3"],"$4"]
6:I[95282,["$2","$3"],"Providers"]
7:I[39756,["$2","$3"],"default"]
8:I[37457,["$2","$3"],"default"]
d:"/_next/static/chunks/0llzv38ot28k6.js"
e:"/_next/static/chunks/2yk9zhpv-1-19.js"
f:"/_next/static/chunks/2b66r_1wsksie.js"
10:"/_next/static/chunks/1n6f67q-ffeo4.js"
11:I[38161,["$2","$3","$d","$e","$f","$10"],"NewRig"]
12:I[97367,["$2","$3"],"OutletBoundary"]
13:"$Sreact.suspense"
15:"ViewportBoundary"
16:I[97367,["$2","$3"],"$15"]
18:"MetadataBoundary"
19:I[97367,["$2","$3"],"$18"]
1b:I[68027,["$2","$3"],"default",1]
:HL["/_next/static/chunks/0e63_dl1-r4ih.css","style"]
:HL["/_next/static/chunks/1fnseddzr9i5p.css","style"]
:HL["/_next/static/chunks/1qxgv-8wv40td.css","style"]
:HC["/",""]
a:X
c:[["children",{"s":"__PAGE__","h":512,"d":{"r":["$","$1","c",{"children":[["$","$L11",null,{}],[["$","script","script-0",{"src":"/_next/static/chunks/0llzv38ot28k6.js","async":true,"nonce":"$undefined"}],["$","script","script-1",{"src":"/_next/static/chunks/2yk9zhpv-1-19.js","async":true,"nonce":"$undefined"}],["$","script","script-2",{"src":"/_next/static/chunks/2b66r_1wsksie.js","async":true,"nonce":"$undefined"}],["$","script","script-3",{"src":"/_next/static/chunks/1n6f67q-ffeo4.js","async":true,"nonce":"$undefined"}]],["$","$L12",null,{"children":["$","$13",null,{"name":"Next.MetadataOutlet","children":"$@14"}]}]]}],"p":false,"v":null}}]]
b:[["children",{"s":"new","h":512,"d":{"r":["$","$1","c",{"children":[null,["$","$L7",null,{"parallelRouterKey":"children","error":"$undefined","errorStyles":"$undefined","errorScripts":"$undefined","template":["$","$L8",null,{}],"templateStyles":"$undefined","templateScripts":"$undefined","notFound":"$undefined","forbidden":"$undefined","unauthorized":"$undefined"}]]}],"p":false,"v":"$a"},"c":"$Qc"}]]
9:[["children",{"s":"rigs","h":512,"d":{"r":["$","$1","c",{"children":[null,["$","$L7",null,{"parallelRouterKey":"children","error":"$undefined","errorStyles":"$undefined","errorScripts":"$undefined","template":["$","$L8",null,{}],"templateStyles":"$undefined","templateScripts":"$undefined","notFound":"$undefined","forbidden":"$undefined","unauthorized":"$undefined"}]]}],"p":false,"v":"$a"},"c":"$Qb"}]]
0:{"P":null,"c":["","rigs","new"],"q":"","i":false,"t":{"t":{"s":"","h":528,"d":{"r":["$","$1","c",{"children":[[["$","link","0",{"rel":"stylesheet","href":"/_next/static/chunks/0e63_dl1-r4ih.css","precedence":"next","crossOrigin":"$undefined","nonce":"$undefined"}],["$","link","1",{"rel":"stylesheet","href":"/_next/static/chunks/1fnseddzr9i5p.css","precedence":"next","crossOrigin":"$undefined","nonce":"$undefined"}],["$","link","2",{"rel":"stylesheet","href":"/_next/static/chunks/1qxgv-8wv40td.css","precedence":"next","crossOrigin":"$undefined","nonce":"$undefined"}],["$","script","script-0",{"src":"/_next/static/chunks/2-jrvol-q-myx.js","async":true,"nonce":"$undefined"}],["$","script","script-1",{"src":"/_next/static/chunks/176384hg1w-rj.js","async":true,"nonce":"$undefined"}]],["$","html",null,{"lang":"en","suppressHydrationWarning":true,"data-mantine-color-scheme":"light","children":[["$","head",null,{"children":["$","$L5",null,{"defaultColorScheme":"auto"}]}],["$","body",null,{"children":["$","$L6",null,{"children":["$","$L7",null,{"parallelRouterKey":"children","error":"$undefined","errorStyles":"$undefined","errorScripts":"$undefined","template":["$","$L8",null,{}],"templateStyles":"$undefined","templateScripts":"$undefined","notFound":[["$","main",null,{"className":"page","children":[["$","h1",null,{"children":"There is nothing here."}],["$","p",null,{"children":["The rig may have another address now. ",["$","a",null,{"href":"/","children":"All rigs"}]]}]]}],[]],"forbidden":"$undefined","unauthorized":"$undefined"}]}]}]]}]]}],"p":false,"v":null},"c":"$Q9"},"h":{"r":["$","$1","h",{"children":[null,["$","$L16",null,{"children":"$L17"}],["$","$L19",null,{"children":[["$","div",null,{"hidden":true,"children":["$","$13",null,{"name":"Next.Metadata","children":"$L1a"}]}],null]}],null]}],"p":false,"v":null}},"m":"$undefined","G":["$1b",[["$","link","0",{"rel":"stylesheet","href":"/_next/static/chunks/0e63_dl1-r4ih.css","precedence":"next","crossOrigin":"$undefined","nonce":"$undefined"}],["$","link","1",{"rel":"stylesheet","href":"/_next/static/chunks/1fnseddzr9i5p.css","precedence":"next","crossOrigin":"$undefined","nonce":"$undefined"}],["$","link","2",{"rel":"stylesheet","href":"/_next/static/chunks/1qxgv-8wv40td.css","precedence":"next","crossOrigin":"$undefined","nonce":"$undefined"}]]],"S":true,"r":"$undefined","s":"$undefined","a":"$undefined","l":"$undefined","p":"$undefined","d":"$undefined","b":"1XHOdgeLO5uVbD0zIt1Xu"}
a:C
17:[["$","meta","0",{"charSet":"utf-8"}],["$","meta","1",{"name":"viewport","content":"width=device-width, initial-scale=1"}]]
1c:I[27201,["$2","$3"],"IconMark"]
14:null
1a:[["$","title","0",{"children":"Yantrel"}],["$","meta","1",{"name":"description","content":"Designs, checks and documents touring guitar rigs."}],["$","link","2",{"rel":"icon","href":"/icon.svg?icon.1yoa6cnz52xse.svg","sizes":"any","type":"image/svg+xml"}],["$","$L1c","3",{}]]
