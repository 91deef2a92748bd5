using System.Net;
using System.Net.Http.Json;
using System.Net.Security;
using System.Security.Cryptography.X509Certificates;
using System.Text.Json.Nodes;
using PatientPawl.Web.Hosting;

namespace PatientPawl.Web.Tests;

/// <summary>The workshop from other devices: over HTTPS by its own root, and behind a proxy that ends TLS.</summary>
public class ReachTests
{
    private static Task<Workshop> Open(Func<StartOptions, StartOptions> options) => Workshop.Open(options: options);

    private static async Task<string> Lead(HttpClient client) =>
        (await client.GetFromJsonAsync<JsonNode>("/api/session"))!["technicians"]!.AsArray().First(t => (bool)t!["isLead"]!)!["id"]!.ToString();

    [Fact]
    public async Task Over_https_a_device_that_trusts_the_workshops_root_signs_in_and_writes()
    {
        await using var shop = await Open(o => o with { Listen = IPAddress.Loopback });
        shop.Client.BaseAddress!.Scheme.ShouldBe("https");
        var made = new Certificates(shop.Folder, TimeProvider.System);
        using var root = X509CertificateLoader.LoadCertificate(made.Root().Export(X509ContentType.Cert));
        using var device = new HttpClient(new SocketsHttpHandler
        {
            SslOptions = new SslClientAuthenticationOptions
            {
                // What a browser does with a root that it was told to trust.
                RemoteCertificateValidationCallback = (_, leaf, _, _) =>
                {
                    using var chain = new X509Chain { ChainPolicy = { TrustMode = X509ChainTrustMode.CustomRootTrust, RevocationMode = X509RevocationMode.NoCheck } };
                    chain.ChainPolicy.CustomTrustStore.Add(root);
                    return chain.Build((X509Certificate2)leaf!) && ((X509Certificate2)leaf!).MatchesHostname("127.0.0.1");
                },
            },
        })
        { BaseAddress = shop.Client.BaseAddress };
        device.DefaultRequestHeaders.Add("Origin", device.BaseAddress!.GetLeftPart(UriPartial.Authority));
        var answer = await device.PostAsJsonAsync("/api/session", new { technicianId = await Lead(device), pin = "2580" });
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        answer.Headers.GetValues("Set-Cookie").Single().ShouldStartWith("__Host-pawl=");
        answer.Headers.GetValues("Set-Cookie").Single().ShouldContain("secure", Case.Insensitive);
        answer.Headers.Contains("Strict-Transport-Security").ShouldBeFalse("a self-made root would lock plain HTTP out of other ports of this name");
        (await device.PostAsJsonAsync("/api/vehicles", new { })).StatusCode.ShouldNotBe(HttpStatusCode.Forbidden);
        var page = (await device.GetStringAsync("/join")).Replace("<wbr>", "", StringComparison.Ordinal);
        page.ShouldContain(made.Fingerprint());
        page.ShouldContain("<svg");
        (await device.GetByteArrayAsync("/join/root.crt")).ShouldBe(root.RawData);
        made.Fingerprint().Length.ShouldBe(32 * 3 - 1);
    }

    [Fact]
    public async Task The_root_stays_the_same_and_the_short_lived_certificate_is_renewed_in_time()
    {
        var folder = Directory.CreateTempSubdirectory("pawl").FullName;
        var clock = new Later();
        var first = new Certificates(folder, clock);
        var (root, leaf) = (first.Root().Thumbprint, first.For(IPAddress.Loopback));
        (leaf.NotAfter - leaf.NotBefore).ShouldBeLessThan(TimeSpan.FromDays(398));
        first.For(IPAddress.Loopback).Thumbprint.ShouldBe(leaf.Thumbprint);
        first.Serving(IPAddress.Loopback).Thumbprint.ShouldBe(leaf.Thumbprint);
        clock.By = TimeSpan.FromDays(75);
        first.Serving(IPAddress.Loopback).Thumbprint.ShouldNotBe(leaf.Thumbprint, "a server that was never stopped shows one that runs out");
        var later = new Certificates(folder, clock);
        later.For(IPAddress.Loopback).Thumbprint.ShouldNotBe(leaf.Thumbprint);
        later.Root().Thumbprint.ShouldBe(root);
        if (!OperatingSystem.IsWindows()) File.GetUnixFileMode(Path.Combine(folder, "tls", "root.pfx")).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite);
        await Task.CompletedTask;
    }

    [Fact]
    public void A_certificate_that_names_another_address_than_this_machine_has_now_is_made_anew()
    {
        var folder = Directory.CreateTempSubdirectory("pawl").FullName;
        var certificates = new Certificates(folder, TimeProvider.System);
        var leaf = certificates.For(IPAddress.Loopback);
        // The machine listened at all of its addresses when it had that one alone.
        File.Move(Path.Combine(folder, "tls", "127.0.0.1.pfx"), Path.Combine(folder, "tls", "192.168.7.20.pfx"));
        var now = certificates.For(IPAddress.Parse("192.168.7.20"));
        now.Thumbprint.ShouldNotBe(leaf.Thumbprint);
        now.MatchesHostname("192.168.7.20").ShouldBeTrue();
    }

    private sealed class Later : TimeProvider
    {
        public TimeSpan By { get; set; }
        public override DateTimeOffset GetUtcNow() => DateTimeOffset.UtcNow + By;
    }

    [Theory]
    [InlineData("127.0.0.1", HttpStatusCode.OK)]
    [InlineData("10.9.8.7", HttpStatusCode.MisdirectedRequest)]
    public async Task Behind_a_proxy_that_ends_tls_a_write_is_taken_and_nobody_elses_word_on_it_is(string proxy, HttpStatusCode wanted)
    {
        await using var shop = await Open(o => o with { Listen = wanted == HttpStatusCode.OK ? IPAddress.Loopback : null, BehindProxy = wanted == HttpStatusCode.OK ? IPAddress.Parse(proxy) : null });
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/session") { Content = JsonContent.Create(new { technicianId = await Lead(shop.Client), pin = "2580" }) };
        request.Headers.Host = wanted == HttpStatusCode.OK ? null : "bay.depot.example";
        request.Headers.Add("X-Forwarded-Proto", "https");
        request.Headers.Add("X-Forwarded-Host", "bay.depot.example");
        request.Headers.Add("X-Forwarded-For", "10.1.2.3");
        request.Headers.Add("Origin", "https://bay.depot.example");
        (await shop.Client.SendAsync(request)).StatusCode.ShouldBe(wanted);
    }

    [Theory]
    [InlineData("--listen", "everywhere")]
    [InlineData("--certificate", "own.pem")]
    public void An_address_or_a_certificate_that_makes_no_sense_is_one_line(params string[] args)
    {
        using var said = new StringWriter();
        StartOptions.Read(args, said).ShouldBeNull();
        said.ToString().Trim().Split('\n').Length.ShouldBe(1);
        StartOptions.Read(["--listen", "192.168.7.20", "--port", "5180"], said)!.Addresses.ShouldBe(["https://192.168.7.20:5180"]);
        new StartOptions(1, "", false).Answers("bay.example").ShouldBeFalse();
        (new StartOptions(1, "", false) with { Listen = IPAddress.Parse("192.168.7.20") }).Answers("192.168.7.20").ShouldBeTrue();
    }
}
