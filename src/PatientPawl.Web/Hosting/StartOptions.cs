using System.Globalization;
using System.Net;

namespace PatientPawl.Web.Hosting;

/// <summary>What the command line says.</summary>
public sealed record StartOptions(int Port, string DataFolder, bool Demo)
{
    /// <summary>The address that other devices reach, over HTTPS; null listens on loopback alone.</summary>
    public IPAddress? Listen { get; init; }

    /// <summary>A certificate of the workshop's own; null makes one.</summary>
    public string? Certificate { get; init; }

    /// <summary>The proxy whose word on scheme, host and address is taken; null where there is none.</summary>
    public IPAddress? BehindProxy { get; init; }

    /// <summary>The car on the link; null is the stand-in of this process.</summary>
    public (string Host, int Port)? Car { get; init; }

    /// <summary>How much faster than real the stand-in car's time goes, 0.1 to 100.</summary>
    public double CarSpeed { get; init; } = 1;

    /// <summary>Where a backup goes, instead of serving; null when none is asked for.</summary>
    public string? Backup { get; init; }

    /// <summary>The backup to put back, instead of serving; null when none is.</summary>
    public string? Restore { get; init; }

    /// <summary>True when every log is verified, instead of serving.</summary>
    public bool Verify { get; init; }

    /// <summary>True when it does one thing and ends.</summary>
    public bool IsMaintenance => Backup is not null || Restore is not null || Verify;

    /// <summary>Where it can be opened.</summary>
    public IReadOnlyList<string> Addresses => Listen is not { } at ? [$"http://127.0.0.1:{Port}"]
        : [.. Certificates.Addresses(at).Select(a => $"{(BehindProxy is null ? "https" : "http")}://{(a.AddressFamily == System.Net.Sockets.AddressFamily.InterNetworkV6 ? $"[{a}]" : a)}:{Port}")];

    /// <summary>
    /// True for the names this server goes by: loopback, the addresses it listens at, this machine's own name. Behind a proxy the proxy
    /// answers for names.
    /// </summary>
    public bool Answers(string host)
    {
        ArgumentNullException.ThrowIfNull(host);
        if (BehindProxy is not null || host is "localhost") return true;
        if (IPAddress.TryParse(host.Trim('[', ']'), out var address)) return IPAddress.IsLoopback(address) || (Listen is { } at && Certificates.Addresses(at).Contains(address));
        return Listen is not null && (Certificate is not null || string.Equals(host, Dns.GetHostName(), StringComparison.OrdinalIgnoreCase) || string.Equals(host, Dns.GetHostName() + ".local", StringComparison.OrdinalIgnoreCase));
    }

    public static string DefaultFolder =>
        Path.Combine(Environment.GetFolderPath(Environment.SpecialFolder.UserProfile), ".local", "share", "patient-pawl");

    private const string Usage = "Use --port 1..65535, --data DIR, --no-demo, --listen ADDRESS, --certificate FILE, --behind-proxy ADDRESS, --car HOST:PORT, --car-speed 0.1..100, --verify, --backup FILE, --restore FILE.";

    private static (string Host, int Port)? Endpoint(string text) =>
        text.LastIndexOf(':') is > 0 and var at && int.TryParse(text[(at + 1)..], NumberStyles.None, CultureInfo.InvariantCulture, out var port) && port is >= 1 and <= 65535 ? (text[..at], port) : null;

    /// <summary>Reads the command line; says what is wrong in one line and returns null when it cannot.</summary>
    public static StartOptions? Read(string[] args, TextWriter errors)
    {
        ArgumentNullException.ThrowIfNull(args);
        ArgumentNullException.ThrowIfNull(errors);
        var options = new StartOptions(5180, DefaultFolder, true);
        var rest = new Queue<string>(args);
        while (rest.TryDequeue(out var name))
        {
            var value = name is not ("--verify" or "--no-demo") && rest.TryDequeue(out var next) ? next : "";
            var read = name switch
            {
                "--verify" => options with { Verify = true },
                "--no-demo" => options with { Demo = false },
                "--port" when int.TryParse(value, out var port) && port is >= 1 and <= 65535 => options with { Port = port },
                "--listen" when IPAddress.TryParse(value, out var address) => options with { Listen = address },
                "--behind-proxy" when IPAddress.TryParse(value, out var proxy) => options with { BehindProxy = proxy },
                "--car" when Endpoint(value) is { } car => options with { Car = car },
                "--car-speed" when double.TryParse(value, NumberStyles.Float, CultureInfo.InvariantCulture, out var speed) && speed is >= 0.1 and <= 100 => options with { CarSpeed = speed },
                "--data" when value.Length > 0 => options with { DataFolder = Path.GetFullPath(value) },
                "--certificate" when value.Length > 0 => options with { Certificate = Path.GetFullPath(value) },
                "--backup" when value.Length > 0 => options with { Backup = Path.GetFullPath(value) },
                "--restore" when value.Length > 0 => options with { Restore = Path.GetFullPath(value) },
                _ => null,
            };
            if (read is null)
            {
                errors.WriteLine($"patient-pawl: '{name}' is not understood. {Usage}");
                return null;
            }

            options = read;
        }

        if (options is { Certificate: not null, Listen: null })
        {
            errors.WriteLine("patient-pawl: --certificate goes with --listen ADDRESS.");
            return null;
        }

        return options;
    }
}
