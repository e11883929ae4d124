/**
 * Who is at the other end of the connection, as our own server in front of Next has put it into the request. It removes what a client
 * sends under these names, and believes what a proxy says only where the proxy is one of ours.
 */
export const peerAddress = (sent: Headers) => sent.get('x-wendrel-peer') ?? 'unknown'

/** Whether the request came over TLS, up to us or up to a proxy of ours. */
export const isOverTls = (sent: Headers) => sent.get('x-wendrel-tls') === '1'
