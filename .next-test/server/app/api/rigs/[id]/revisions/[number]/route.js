var R=require("../../../../../../chunks/[turbopack]_runtime.js")("server/app/api/rigs/[id]/revisions/[number]/route.js")
R.c("server/chunks/[externals]__1g-u1v0eupafs._.js")
R.c("server/chunks/_1mdarx6qbjxw-._.js")
R.c("server/chunks/[root-of-the-server]__15bjnu5yieigz._.js")
R.c("server/chunks/_1ux2vaq_j_y86._.js")
R.c("server/chunks/1oeh_server_app_api_rigs_[id]_revisions_[number]_route_actions_1ycovze_4h7b8.js")
R.m(42646)
module.exports=R.m(42646).exports
