module.exports=[12911,(e,o,d)=>{}];

//# sourceMappingURL=_next-internal_server_app_api_rigs_route_actions_1ij8yrh2xxh-a.js.map