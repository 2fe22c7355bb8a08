globalThis.__BUILD_MANIFEST = {
  "pages": {
    "/_app": []
  },
  "devFiles": [],
  "polyfillFiles": [
    "static/chunks/0cz1d0mv5g_q7.js"
  ],
  "lowPriorityFiles": [
    "static/1XHOdgeLO5uVbD0zIt1Xu/_buildManifest.js",
    "static/1XHOdgeLO5uVbD0zIt1Xu/_ssgManifest.js",
    "static/1XHOdgeLO5uVbD0zIt1Xu/_clientMiddlewareManifest.js"
  ],
  "rootMainFiles": [
    "static/chunks/3y705tc4v-41-.js",
    "static/chunks/34e8_12tj54u3.js",
    "static/chunks/2020ywhn0mak7.js",
    "static/chunks/3jklq_auyqws-.js",
    "static/chunks/turbopack-077hmtqrhcoji.js"
  ],
  "rootMainFilesTree": {},
  "pagesChunkGroupBootstrapParams": {
    "/page": {
      "otherChunks": [
        "static/chunks/3y705tc4v-41-.js",
        "static/chunks/34e8_12tj54u3.js",
        "static/chunks/2020ywhn0mak7.js",
        "static/chunks/3jklq_auyqws-.js"
      ],
      "runtimeModuleIds": [
        94553
      ]
    },
    "/_not-found/page": {
      "otherChunks": [
        "static/chunks/3y705tc4v-41-.js",
        "static/chunks/34e8_12tj54u3.js",
        "static/chunks/2020ywhn0mak7.js",
        "static/chunks/3jklq_auyqws-.js"
      ],
      "runtimeModuleIds": [
        94553
      ]
    },
    "/_global-error/page": {
      "otherChunks": [
        "static/chunks/3y705tc4v-41-.js",
        "static/chunks/34e8_12tj54u3.js",
        "static/chunks/2020ywhn0mak7.js",
        "static/chunks/3jklq_auyqws-.js"
      ],
      "runtimeModuleIds": [
        94553
      ]
    },
    "/rigs/[id]/[place]/page": {
      "otherChunks": [
        "static/chunks/3y705tc4v-41-.js",
        "static/chunks/34e8_12tj54u3.js",
        "static/chunks/2020ywhn0mak7.js",
        "static/chunks/3jklq_auyqws-.js"
      ],
      "runtimeModuleIds": [
        94553
      ]
    },
    "/rigs/new/page": {
      "otherChunks": [
        "static/chunks/3y705tc4v-41-.js",
        "static/chunks/34e8_12tj54u3.js",
        "static/chunks/2020ywhn0mak7.js",
        "static/chunks/3jklq_auyqws-.js"
      ],
      "runtimeModuleIds": [
        94553
      ]
    }
  },
  "chunkLoadingGlobal": "TURBOPACK"
};
