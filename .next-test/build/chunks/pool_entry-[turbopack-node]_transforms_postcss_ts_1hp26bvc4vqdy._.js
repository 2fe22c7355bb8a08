var R=require("./[turbopack]_runtime.js")("chunks/pool_entry-[turbopack-node]_transforms_postcss_ts_1hp26bvc4vqdy._.js")
R.c("chunks/[turbopack-node]_transforms_postcss_ts_1itiywyp5pmzp._.js")
R.c("chunks/[root-of-the-server]__0dedmkahzx8bh._.js")
R.m("[turbopack-node]/child_process/globals.ts [postcss] (ecmascript)")
R.m("[turbopack-node]/child_process/evaluate.ts/evaluate.js { INNER => \"[turbopack-node]/transforms/postcss.ts?config=[project]/postcss.config.cjs { CONFIG => \\\"[project]/postcss.config.cjs [postcss] (ecmascript)\\\" } [postcss] (ecmascript)\", RUNTIME => \"[turbopack-node]/child_process/evaluate.ts [postcss] (ecmascript)\" } [postcss] (ecmascript)")
module.exports=R.m("[turbopack-node]/child_process/evaluate.ts/evaluate.js { INNER => \"[turbopack-node]/transforms/postcss.ts?config=[project]/postcss.config.cjs { CONFIG => \\\"[project]/postcss.config.cjs [postcss] (ecmascript)\\\" } [postcss] (ecmascript)\", RUNTIME => \"[turbopack-node]/child_process/evaluate.ts [postcss] (ecmascript)\" } [postcss] (ecmascript)").exports
