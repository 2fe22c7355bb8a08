var R=require("../../../../../chunks/[turbopack]_runtime.js")("server/app/api/rigs/[id]/file/route.js")
R.c("server/chunks/[externals]__1g-u1v0eupafs._.js")
R.c("server/chunks/_13l7rz645u3jy._.js")
R.c("server/chunks/[root-of-the-server]__15bjnu5yieigz._.js")
R.c("server/chunks/_02cg2m_gu5laj._.js")
R.c("server/chunks/_next-internal_server_app_api_rigs_[id]_file_route_actions_1mh7lwihv745k.js")
R.m(19449)
module.exports=R.m(19449).exports
