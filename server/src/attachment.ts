/** What tells a browser to save an answer under this name. */
export function attachmentHeaders(type: string, name: string): Record<string, string> {
  const plain = name.replace(/[^\w .-]+/g, '_');
  return {
    'Content-Type': type,
    'Content-Disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name).replace(/['()*]/g, escape)}`,
  };
}

/** A document that the browser saves under this name. */
export function attachment(body: string, type: string, name: string): Response {
  return new Response(body, { headers: attachmentHeaders(type, name) });
}
