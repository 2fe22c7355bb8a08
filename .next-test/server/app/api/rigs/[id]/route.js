var R=require("../../../../chunks/[turbopack]_runtime.js")("server/app/api/rigs/[id]/route.js")
R.c("server/chunks/[externals]__1g-u1v0eupafs._.js")
R.c("server/chunks/_162my-5xwyl0n._.js")
R.c("server/chunks/[root-of-the-server]__15bjnu5yieigz._.js")
R.c("server/chunks/_0auhijvy1futn._.js")
R.c("server/chunks/_next-internal_server_app_api_rigs_[id]_route_actions_1gpop1988dnaw.js")
R.m(20269)
module.exports=R.m(20269).exports
