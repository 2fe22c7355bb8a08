module.exports=[51335,(a,b,c)=>{}];

//# sourceMappingURL=_next-internal_server_app_rigs_new_page_actions_16erk15qggrr8.js.map