namespace PatientPawl.Web.Hosting;

/// <summary>What the command line says.</summary>
public sealed record StartOptions(int Port, string DataFolder, bool Demo)
{
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
                case "--no-demo":
                    options = options with { Demo = false };
                    break;
                default:
                    errors.WriteLine($"patient-pawl: '{args[i]}' is not understood. Use --port 1..65535, --data DIR, --no-demo.");
                    return null;
            }
        }

        return options;
    }
}
