module.exports=[82405,(e,o,d)=>{}];

//# sourceMappingURL=1oeh_server_app_api_rigs_%5Bid%5D_revisions_%5Bnumber%5D_route_actions_1ycovze_4h7b8.js.map