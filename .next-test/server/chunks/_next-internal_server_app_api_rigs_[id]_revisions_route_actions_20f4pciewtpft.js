module.exports=[53278,(e,o,d)=>{}];

//# sourceMappingURL=_next-internal_server_app_api_rigs_%5Bid%5D_revisions_route_actions_20f4pciewtpft.js.map