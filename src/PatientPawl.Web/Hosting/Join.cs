using System.Net;
using System.Security.Cryptography.X509Certificates;

namespace PatientPawl.Web.Hosting;

/// <summary>How a tablet joins: the address to open, the root to trust, its fingerprint to compare with the lead's screen.</summary>
internal static class Join
{
    public static void MapJoin(this WebApplication app, StartOptions options)
    {
        app.MapGet("/join/root.crt", (TimeProvider clock) =>
        {
            using var root = new Certificates(options.DataFolder, clock).Root();
            return TypedResults.File(root.Export(X509ContentType.Cert), "application/x-x509-ca-cert", "patient-pawl-root.crt");
        }).ExcludeFromDescription();
        app.MapGet("/join", (HttpContext http, TimeProvider clock) =>
        {
            var address = $"{http.Request.Scheme}://{http.Request.Host}/";
            var finger = new Certificates(options.DataFolder, clock).Fingerprint();
            return TypedResults.Content(Page(address, finger), "text/html; charset=utf-8");
        }).ExcludeFromDescription();
    }

    private static string Page(string address, string finger)
    {
        return $$"""
            <!doctype html>
            <html lang="en">
            <head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>Join this workshop</title>
            <style>body{font:18px/1.5 sans-serif;max-width:44em;margin:0 auto;padding:0 1em;color:#12211d;background:#f8fbf8}h1{font-size:26px;margin:0 0 .8em;padding:.5em 1rem;color:#fff;background:#14493a}code{font-size:17px;overflow-wrap:anywhere}svg{display:block;width:240px;height:240px}li{margin:.4em 0}a{color:#14493a}</style></head>
            <body>
            <h1>Patient Pawl: join this workshop</h1>
            <p>Open this on the tablet, or point its camera at the square: <code>{{WebUtility.HtmlEncode(address)}}</code></p>
            {{AddressCode.Svg(address)}}
            <ol>
            <li>Fetch <a href="/join/root.crt">the workshop's root certificate</a> on the tablet.</li>
            <li>Install it as a certificate that may vouch for servers: under security or certificates in the tablet's settings.</li>
            <li>Before you say yes, compare its SHA-256 fingerprint with this one on the lead's screen, pair by pair:<br><code>{{finger.Replace(":", ":<wbr>", StringComparison.Ordinal)}}</code></li>
            <li>Open the address again. No warning stands there any more.</li>
            </ol>
            <p>Past the warning alone, without the root, everything works while the workshop's network is there; the page itself does not reload without it.</p>
            </body></html>
            """;
    }
}
