var R=require("../../../../../chunks/[turbopack]_runtime.js")("server/app/api/rigs/[id]/duplicate/route.js")
R.c("server/chunks/[root-of-the-server]__00mt111xvcjk_._.js")
R.c("server/chunks/_091buzs8ke3id._.js")
R.c("server/chunks/_02cg2m_gu5laj._.js")
R.c("server/chunks/[root-of-the-server]__15bjnu5yieigz._.js")
R.c("server/chunks/_next-internal_server_app_api_rigs_[id]_duplicate_route_actions_14-mdw2klrshc.js")
R.m(72666)
module.exports=R.m(72666).exports
