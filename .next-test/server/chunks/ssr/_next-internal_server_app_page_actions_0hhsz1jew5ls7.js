module.exports=[49901,(a,b,c)=>{}];

//# sourceMappingURL=_next-internal_server_app_page_actions_0hhsz1jew5ls7.js.map