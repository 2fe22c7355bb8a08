var R=require("../../../chunks/[turbopack]_runtime.js")("server/app/api/rigs/route.js")
R.c("server/chunks/[root-of-the-server]__16l5an4v0b8y8._.js")
R.c("server/chunks/_0-k394vy0yqa-._.js")
R.c("server/chunks/_1rr0ame7_iybp._.js")
R.c("server/chunks/[root-of-the-server]__15bjnu5yieigz._.js")
R.c("server/chunks/_next-internal_server_app_api_rigs_route_actions_1ij8yrh2xxh-a.js")
R.m(74142)
module.exports=R.m(74142).exports
