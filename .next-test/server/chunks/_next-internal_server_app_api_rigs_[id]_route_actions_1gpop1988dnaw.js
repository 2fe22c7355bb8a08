module.exports=[92822,(e,o,d)=>{}];

//# sourceMappingURL=_next-internal_server_app_api_rigs_%5Bid%5D_route_actions_1gpop1988dnaw.js.map