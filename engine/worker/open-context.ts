/** Renderers that draw on the processor what a card should draw. */
const SOFTWARE = /swiftshader|llvmpipe|softpipe|software|basic render/i

/**
 * A WebGL2 context without anything a picture does not need; null when the browser has none, or only one in software and
 * that is not accepted. Chromium answers `failIfMajorPerformanceCaveat` for canvases of a page only, so the name decides too.
 */
export function openContext(acceptsSoftware: boolean): WebGL2RenderingContext | null {
  const gl = new OffscreenCanvas(1, 1).getContext('webgl2', {
    failIfMajorPerformanceCaveat: !acceptsSoftware,
    powerPreference: 'high-performance',
    antialias: false,
    depth: false,
  })
  if (gl === null || acceptsSoftware) return gl
  const info = gl.getExtension('WEBGL_debug_renderer_info')
  return SOFTWARE.test(String(gl.getParameter(info?.UNMASKED_RENDERER_WEBGL ?? gl.RENDERER))) ? null : gl
}
