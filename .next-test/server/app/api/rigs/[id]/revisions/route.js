var R=require("../../../../../chunks/[turbopack]_runtime.js")("server/app/api/rigs/[id]/revisions/route.js")
R.c("server/chunks/[root-of-the-server]__0mhc_1842836x._.js")
R.c("server/chunks/_1_0q9tjtzl1x7._.js")
R.c("server/chunks/[root-of-the-server]__15bjnu5yieigz._.js")
R.c("server/chunks/_0u_pt2yjz2mnm._.js")
R.c("server/chunks/_next-internal_server_app_api_rigs_[id]_revisions_route_actions_20f4pciewtpft.js")
R.m(46486)
module.exports=R.m(46486).exports
