module.exports=[60722,(e,o,d)=>{}];

//# sourceMappingURL=_next-internal_server_app_icon_svg_route_actions_1r2h_ubdhjtcp.js.map