module.exports=[90500,(a,b,c)=>{}];

//# sourceMappingURL=_next-internal_server_app_rigs_%5Bid%5D_%5Bplace%5D_page_actions_13maw1ux-4n6y.js.map