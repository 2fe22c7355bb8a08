module.exports=[51033,(a,b,c)=>{}];

//# sourceMappingURL=_next-internal_server_app__global-error_page_actions_0zi5s8-psc_d2.js.map