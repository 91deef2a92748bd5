using PatientPawl.Data;

namespace PatientPawl.Web.Hosting;

/// <summary>What the command line does beside serving: verify, back up, restore.</summary>
public static class Maintenance
{
    /// <summary>Does it, says what came of it, and gives the exit code: 0 when all is well.</summary>
    public static int Run(StartOptions options, TextWriter output, TextWriter errors, TimeProvider clock)
    {
        ArgumentNullException.ThrowIfNull(options);
        ArgumentNullException.ThrowIfNull(output);
        ArgumentNullException.ThrowIfNull(errors);
        ArgumentNullException.ThrowIfNull(clock);
        try
        {
            if (options.Backup is { } to)
            {
                output.WriteLine($"Backed up {Core.Figure.Count(Backups.Make(options.DataFolder, to), "event")} to {to}. It holds the seal key: keep it where only the lead reads it.");
                return 0;
            }

            if (options.Restore is { } from)
            {
                var aside = Backups.Restore(options.DataFolder, from, clock.GetLocalNow());
                output.WriteLine($"Restored from {from}.{(aside is null ? "" : $" What was there lies in {aside}.")}");
                return 0;
            }

            return Verify(options, output, clock);
        }
        catch (FolderException e)
        {
            errors.WriteLine($"patient-pawl: {e.Message}");
            return 1;
        }
    }

    private static int Verify(StartOptions options, TextWriter output, TimeProvider clock)
    {
        using var database = new Database(options.DataFolder);
        using var heads = new Heads(options.DataFolder);
        var events = new EventStore(database, clock, new Seals(options.DataFolder), heads);
        var differs = events.VerifyAll();
        foreach (var check in differs) output.WriteLine($"Job {check.JobId}: {check.Says}");
        var wrong = differs.Count;
        output.WriteLine(wrong == 0 ? $"Verified: {Core.Figure.Count(events.JobIds().Count, "job")}, each as it was stored." : $"{Core.Figure.Count(wrong, "job differs", "jobs differ")} from what was stored.");
        return wrong == 0 ? 0 : 1;
    }
}

/// <summary>A backup a day beside the data, the last fourteen of them.</summary>
public sealed partial class DailyBackup(StartOptions options, TimeProvider clock, ILogger<DailyBackup> log) : BackgroundService
{
    /// <summary>How many are kept.</summary>
    public const int Kept = 14;

    private const string Folder = "backups", Ending = ".pawl-backup";

    /// <summary>Makes today's where it is not there, and lets the oldest go.</summary>
    public static void Make(string folder, DateOnly today)
    {
        Directory.CreateDirectory(Path.Combine(folder, Folder));
        if (!File.Exists(FileOf(folder, today))) Backups.Make(folder, FileOf(folder, today));
        foreach (var old in Days(folder).Skip(Kept)) File.Delete(FileOf(folder, old));
    }

    /// <summary>Where the backup of a day lies.</summary>
    public static string FileOf(string folder, DateOnly day) => Path.Combine(folder, Folder, Core.Figure.Date(day) + Ending);

    /// <summary>The days that a backup is kept of, the newest first.</summary>
    public static IReadOnlyList<DateOnly> Days(string folder) => !Directory.Exists(Path.Combine(folder, Folder)) ? []
        : [.. Directory.GetFiles(Path.Combine(folder, Folder), "*" + Ending).Select(Path.GetFileNameWithoutExtension)
            .Select(n => DateOnly.TryParseExact(n, "yyyy-MM-dd", out var day) ? day : (DateOnly?)null).OfType<DateOnly>().OrderDescending()];

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // The first one waits: a server that was just started has something better to do.
        while (await Waited(stoppingToken))
        {
            try
            {
                Make(options.DataFolder, DateOnly.FromDateTime(clock.GetLocalNow().DateTime));
            }
            catch (Exception e) when (e is FolderException or IOException or UnauthorizedAccessException)
            {
                // A server goes on without its backup, and says so.
                NotMade(log, e.Message);
            }
        }
    }

    // False once the server stops: that is no failure.
    private async Task<bool> Waited(CancellationToken stopping)
    {
        try
        {
            await Task.Delay(TimeSpan.FromMinutes(30), clock, stopping);
            return true;
        }
        catch (OperationCanceledException)
        {
            return false;
        }
    }

    [LoggerMessage(EventId = 501, Level = LogLevel.Error, Message = "Today's backup was not made: {Why}")]
    private static partial void NotMade(ILogger logger, string why);
}
