module.exports=[51324,(e,o,d)=>{}];

//# sourceMappingURL=_next-internal_server_app_api_rigs_%5Bid%5D_file_route_actions_1mh7lwihv745k.js.map