namespace PatientPawl.Web.Hosting;

/// <summary>What the command line says.</summary>
public sealed record StartOptions(int Port, string DataFolder, bool Demo)
{
    /// <summary>Where a backup goes, instead of serving; null when none is asked for.</summary>
    public string? Backup { get; init; }

    /// <summary>The backup to put back, instead of serving; null when none is.</summary>
    public string? Restore { get; init; }

    /// <summary>True when every log is verified, instead of serving.</summary>
    public bool Verify { get; init; }

    /// <summary>True when it does one thing and ends.</summary>
    public bool IsMaintenance => Backup is not null || Restore is not null || Verify;

    public static string DefaultFolder =>
        Path.Combine(Environment.GetFolderPath(Environment.SpecialFolder.UserProfile), ".local", "share", "patient-pawl");

    /// <summary>Reads the command line; says what is wrong in one line and returns null when it cannot.</summary>
    public static StartOptions? Read(string[] args, TextWriter errors)
    {
        ArgumentNullException.ThrowIfNull(args);
        ArgumentNullException.ThrowIfNull(errors);
        var options = new StartOptions(5180, DefaultFolder, true);
        for (var i = 0; i < args.Length; i++)
        {
            switch (args[i])
            {
                case "--port" when i + 1 < args.Length && int.TryParse(args[i + 1], out var port) && port is >= 1 and <= 65535:
                    options = options with { Port = port };
                    i++;
                    break;
                case "--data" when i + 1 < args.Length && args[i + 1].Length > 0:
                    options = options with { DataFolder = Path.GetFullPath(args[i + 1]) };
                    i++;
                    break;
                case "--backup" when i + 1 < args.Length && args[i + 1].Length > 0:
                    options = options with { Backup = Path.GetFullPath(args[i + 1]) };
                    i++;
                    break;
                case "--restore" when i + 1 < args.Length && args[i + 1].Length > 0:
                    options = options with { Restore = Path.GetFullPath(args[i + 1]) };
                    i++;
                    break;
                case "--verify":
                    options = options with { Verify = true };
                    break;
                case "--no-demo":
                    options = options with { Demo = false };
                    break;
                default:
                    errors.WriteLine($"patient-pawl: '{args[i]}' is not understood. Use --port 1..65535, --data DIR, --no-demo, --verify, --backup FILE, --restore FILE.");
                    return null;
            }
        }

        return options;
    }
}
