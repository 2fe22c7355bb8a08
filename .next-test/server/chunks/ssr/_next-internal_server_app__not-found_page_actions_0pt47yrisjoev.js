module.exports=[57665,(a,b,c)=>{}];

//# sourceMappingURL=_next-internal_server_app__not-found_page_actions_0pt47yrisjoev.js.map