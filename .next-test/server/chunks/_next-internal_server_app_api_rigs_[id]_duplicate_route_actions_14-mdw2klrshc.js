module.exports=[17422,(e,o,d)=>{}];

//# sourceMappingURL=_next-internal_server_app_api_rigs_%5Bid%5D_duplicate_route_actions_14-mdw2klrshc.js.map