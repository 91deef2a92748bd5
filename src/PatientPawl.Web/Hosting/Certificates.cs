using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using PatientPawl.Data;

namespace PatientPawl.Web.Hosting;

/// <summary>
/// The workshop's own certificates: a root made once, that a tablet is told to trust, and a short-lived one for the address, signed by it. A
/// workshop with a certificate of its own names it with <c>--certificate</c>.
/// </summary>
public sealed class Certificates(string folder, TimeProvider clock)
{
    // Browsers refuse server certificates that last longer than 398 days (CA/Browser Forum baseline requirements, from memory).
    private static readonly TimeSpan LeafLasts = TimeSpan.FromDays(90), RenewBefore = TimeSpan.FromDays(20), RootLasts = TimeSpan.FromDays(3650);
    private const UnixFileMode OwnerOnly = UnixFileMode.UserRead | UnixFileMode.UserWrite;

    private readonly Lock _gate = new();
    private (DateTimeOffset LookedAt, X509Certificate2 Certificate)? _served;

    /// <summary>
    /// The certificate to show now: looked at again every hour, so that neither a server that runs for months nor one that was given another
    /// address shows one that has run out or names another.
    /// </summary>
    public X509Certificate2 Serving(IPAddress address)
    {
        lock (_gate)
        {
            if (_served is not { } served || clock.GetUtcNow() - served.LookedAt >= TimeSpan.FromHours(1)) _served = served = (clock.GetUtcNow(), For(address));
            return served.Certificate;
        }
    }

    /// <summary>The root, made at the first start.</summary>
    public X509Certificate2 Root() => Kept("root.pfx", c => c.NotAfter > clock.GetUtcNow().AddDays(1).UtcDateTime, () =>
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest("CN=Patient Pawl workshop root", key, HashAlgorithmName.SHA256);
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(true, true, 0, true));
        request.CertificateExtensions.Add(new X509KeyUsageExtension(X509KeyUsageFlags.KeyCertSign | X509KeyUsageFlags.CrlSign, true));
        request.CertificateExtensions.Add(new X509SubjectKeyIdentifierExtension(request.PublicKey, false));
        return request.CreateSelfSigned(clock.GetUtcNow().AddDays(-1), clock.GetUtcNow() + RootLasts);
    });

    /// <summary>The certificate for an address, renewed in time, and where this machine's addresses are others than it names.</summary>
    public X509Certificate2 For(IPAddress address) => Kept($"{address.ToString().Replace(':', '-')}.pfx", c => c.NotAfter > (clock.GetUtcNow() + RenewBefore).UtcDateTime && Names(c, address), () =>
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest($"CN={address}", key, HashAlgorithmName.SHA256);
        var names = new SubjectAlternativeNameBuilder();
        foreach (var ip in Addresses(address)) names.AddIpAddress(ip);
        names.AddDnsName("localhost");
        names.AddDnsName(Dns.GetHostName());
        request.CertificateExtensions.Add(names.Build());
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(false, false, 0, true));
        request.CertificateExtensions.Add(new X509KeyUsageExtension(X509KeyUsageFlags.DigitalSignature, true));
        request.CertificateExtensions.Add(new X509EnhancedKeyUsageExtension([new("1.3.6.1.5.5.7.3.1")], false));
        using var root = Root();
        using var signed = request.Create(root, clock.GetUtcNow().AddDays(-1), clock.GetUtcNow() + LeafLasts, RandomNumberGenerator.GetBytes(16));
        return signed.CopyWithPrivateKey(key);
    });

    /// <summary>SHA-256 over the root, in pairs, as a tablet shows it.</summary>
    public string Fingerprint()
    {
        using var root = Root();
        return string.Join(':', Convert.ToHexString(SHA256.HashData(root.RawData)).Chunk(2).Select(c => new string(c)));
    }

    /// <summary>A certificate from a file of the workshop's own, PEM with its key beside it, or PKCS #12 without a password.</summary>
    /// <exception cref="FolderException">It cannot be read.</exception>
    public static X509Certificate2 Own(string path)
    {
        try
        {
            return path.EndsWith(".pem", StringComparison.OrdinalIgnoreCase)
                ? X509CertificateLoader.LoadPkcs12(X509Certificate2.CreateFromPemFile(path, Path.ChangeExtension(path, ".key")).Export(X509ContentType.Pfx), null)
                : X509CertificateLoader.LoadPkcs12FromFile(path, null);
        }
        catch (Exception e) when (e is CryptographicException or IOException or UnauthorizedAccessException)
        {
            throw new FolderException($"The certificate {path} cannot be used: {e.Message}", e);
        }
    }

    /// <summary>Every address this machine answers at, where it listens at all of them.</summary>
    public static IReadOnlyList<IPAddress> Addresses(IPAddress listens) => listens.Equals(IPAddress.Any) || listens.Equals(IPAddress.IPv6Any)
        ? [IPAddress.Loopback, .. System.Net.NetworkInformation.NetworkInterface.GetAllNetworkInterfaces().SelectMany(n => n.GetIPProperties().UnicastAddresses).Select(a => a.Address).Where(a => !IPAddress.IsLoopback(a) && !a.IsIPv6LinkLocal).Distinct()]
        : [listens];

    private static bool Names(X509Certificate2 certificate, IPAddress listens)
    {
        var named = certificate.Extensions.OfType<X509SubjectAlternativeNameExtension>().SelectMany(e => e.EnumerateIPAddresses()).ToHashSet();
        // A certificate names an address without its zone.
        return Addresses(listens).All(a => named.Contains(new IPAddress(a.GetAddressBytes())));
    }

    private X509Certificate2 Kept(string name, Func<X509Certificate2, bool> stillGood, Func<X509Certificate2> make)
    {
        var path = Path.Combine(folder, "tls", name);
        if (File.Exists(path))
        {
            var kept = X509CertificateLoader.LoadPkcs12FromFile(path, null, X509KeyStorageFlags.Exportable);
            if (stillGood(kept)) return kept;
        }

        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        using var made = make();
        var bytes = made.Export(X509ContentType.Pfx);
        var options = new FileStreamOptions { Mode = FileMode.Create, Access = FileAccess.Write };
        if (!OperatingSystem.IsWindows()) options.UnixCreateMode = OwnerOnly;
        using (var file = new FileStream(path, options)) file.Write(bytes);
        return X509CertificateLoader.LoadPkcs12(bytes, null, X509KeyStorageFlags.Exportable);
    }
}
