/** Redirects for the common web servers, ready to paste: one block for each host. */
export function httpsRedirect(hosts: readonly string[]): { label: string; text: string }[] {
  const each = (block: (host: string) => string): string => hosts.map(block).join('\n');
  return [
    {
      label: 'nginx',
      text: each(
        (host) =>
          `server {\n  listen 80; listen [::]:80;\n  server_name ${host};\n  return 301 https://${host}$request_uri;\n}`,
      ),
    },
    {
      label: 'Apache',
      text: each(
        (host) =>
          `<VirtualHost *:80>\n  ServerName ${host}\n  Redirect permanent / https://${host}/\n</VirtualHost>`,
      ),
    },
    { label: 'Caddy', text: each((host) => `http://${host} {\n  redir https://${host}{uri} permanent\n}`) },
  ];
}

/** Sends hosts to another, path and query kept. */
export function hostRedirect(hosts: readonly string[], to: string): { label: string; text: string }[] {
  const each = (block: (from: string) => string): string => hosts.map(block).join('\n');
  return [
    {
      label: 'nginx',
      text: each(
        (from) =>
          `server {\n  listen 443 ssl; listen [::]:443 ssl;\n  server_name ${from};\n  # a certificate that covers ${from}; without these lines another site’s is sent\n  ssl_certificate ssl/${from}/fullchain.pem;\n  ssl_certificate_key ssl/${from}/privkey.pem;\n  return 301 https://${to}$request_uri;\n}`,
      ),
    },
    {
      label: 'Apache',
      text: each(
        (from) =>
          `<VirtualHost *:443>\n  ServerName ${from}\n  SSLEngine on\n  # a certificate that covers ${from}; without these lines another site’s is sent\n  SSLCertificateFile ssl/${from}/fullchain.pem\n  SSLCertificateKeyFile ssl/${from}/privkey.pem\n  Redirect permanent / https://${to}/\n</VirtualHost>`,
      ),
    },
    { label: 'Caddy', text: each((from) => `${from} {\n  redir https://${to}{uri} permanent\n}`) },
  ];
}

/** A response header for the common web servers. */
export function headerRecipe(name: string, value: string): { label: string; text: string }[] {
  return [
    { label: 'Header', text: `${name}: ${value}` },
    { label: 'nginx', text: `add_header ${name} "${value}" always;` },
    { label: 'Apache', text: `Header always set ${name} "${value}"` },
  ];
}
