/* Makes frames that show Sarnik’s pages as high as what they show, and tells them whether this page is dark. It goes into
   the page around, so it is one small script without modules. The messages are described in docs/handing-over.md. */
(() => {
  const frames = () => [...document.querySelectorAll('iframe')].filter(f => f.src.includes('#framed'));
  const isDark = () => {
    const said = getComputedStyle(document.documentElement).colorScheme;
    return said.includes('dark') && (!said.includes('light') || matchMedia('(prefers-color-scheme: dark)').matches);
  };
  addEventListener('message', ({ source, origin, data }) => {
    const frame = frames().find(f => f.contentWindow === source);
    if (!frame || data?.from !== 'sarnik' || new URL(frame.src).origin !== origin) return;
    if (data.type === 'height' && data.height > 0) frame.style.height = `${Math.ceil(data.height)}px`;
    if (data.type === 'ready')
      source.postMessage({ to: 'sarnik', type: 'mood', mood: isDark() ? 'night' : 'day' }, origin);
  });
  // What was said before this script was there is said again.
  for (const frame of frames())
    frame.contentWindow.postMessage({ to: 'sarnik', type: 'tell' }, new URL(frame.src).origin);
})();
