/** A document that the browser saves under this name. */
export function attachment(body: string, type: string, name: string): Response {
  const plain = name.replace(/[^\w .-]+/g, '_');
  return new Response(body, {
    headers: {
      'Content-Type': type,
      'Content-Disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name).replace(/['()*]/g, escape)}`,
      'Cache-Control': 'no-store',
    },
  });
}
