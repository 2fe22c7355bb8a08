module.exports=[27699,(a,b,c)=>{b.exports=a.x("events",()=>require("events"))}];

//# sourceMappingURL=%5Bexternals%5D_events_0l6cma3ix_6ii._.js.map