// Stands behind the compiled core in a worker: opens the data, then answers one question after the other.
self.main([]);

async function opened({ data, day, spoken }) {
  const packed = Uint8Array.from(atob(data), sign => sign.charCodeAt(0));
  const bytes = await new Response(
    new Blob([packed]).stream().pipeThrough(new DecompressionStream('gzip')),
  ).arrayBuffer();
  return globalThis.sarnikCore.open(new Int8Array(bytes), day ?? '', spoken.tag, spoken.sentences);
}

self.onmessage = async ({ data: asked }) => {
  try {
    if (asked.data) self.postMessage({ refused: await opened(asked) });
    else self.postMessage({ answer: globalThis.sarnikCore.ask(asked.what, asked.body) });
  } catch (failed) {
    self.postMessage({
      refused: `What was asked could not be worked out (${failed.message ?? failed}). Load the page anew.`,
    });
  }
};
