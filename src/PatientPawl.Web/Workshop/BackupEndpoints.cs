using Microsoft.AspNetCore.Mvc;
using PatientPawl.Core;
using PatientPawl.Core.Jobs;
using PatientPawl.Data;
using PatientPawl.Web.Hosting;

namespace PatientPawl.Web.Workshop;

/// <summary>The backups that lie beside the data, and the one that the next start puts back.</summary>
/// <param name="Kept">The days that a backup was kept of, the newest first.</param>
/// <param name="Waiting">What the next start puts back; null when it puts nothing back.</param>
public sealed record BackupsView(IReadOnlyList<DateOnly> Kept, BackupContents? Waiting);

/// <summary>A backup that is kept here.</summary>
/// <param name="Day">Its day.</param>
public sealed record RestoreDay(DateOnly Day);

/// <summary>What the next start puts back. Every start takes what it finds, so that whoever has laid it ready is this very process.</summary>
public sealed class LaidReady(StartOptions options)
{
    /// <summary>What is in it; null where nothing is laid ready.</summary>
    public BackupContents? Waiting { get; private set; }

    /// <summary>Lays a backup ready, once it has been read through.</summary>
    /// <exception cref="NotAllowedException">It is no backup, or it is damaged: nothing was laid ready.</exception>
    public void Lay(string file)
    {
        try
        {
            Waiting = Backups.Lay(options.DataFolder, file);
        }
        catch (FolderException e)
        {
            throw new NotAllowedException(e.Message, [], []);
        }
    }

    /// <summary>The next start puts nothing back.</summary>
    public void Withdraw()
    {
        Backups.Withdraw(options.DataFolder);
        Waiting = null;
    }
}

/// <summary>Backups are the lead's: whoever has one has every record and the key of their seals.</summary>
internal static class BackupEndpoints
{
    public static void MapBackups(this RouteGroupBuilder api)
    {
        var backups = api.MapGroup("/workshop").RequireAuthorization().AddEndpointFilter((context, next) =>
        {
            context.HttpContext.RequireLead();
            return next(context);
        });
        // Made while the workshop goes on working.
        backups.MapGet("/backup", (StartOptions options, TimeProvider clock) =>
        {
            var file = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():N}.pawl-backup");
            Backups.Make(options.DataFolder, file);
            return TypedResults.Stream(new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.None, 1 << 16, FileOptions.DeleteOnClose), "application/zip", $"{Figure.Date(DateOnly.FromDateTime(clock.GetLocalNow().DateTime))}.pawl-backup");
        });
        backups.MapGet("/backups", (StartOptions options, LaidReady ready) => View(options, ready));
        // A server cannot change what it works on under the people who work with it: the next start does.
        backups.MapPost("/restore/kept", (RestoreDay day, StartOptions options, LaidReady ready) =>
        {
            var file = DailyBackup.FileOf(options.DataFolder, day.Day);
            if (!File.Exists(file)) throw new InputException(new InputError("day", Figure.Date(day.Day), "a day that a backup is kept of", "There is no backup of that day here."));
            ready.Lay(file);
            return View(options, ready);
        });
        backups.MapPost("/restore/file", async (Stream body, StartOptions options, LaidReady ready) =>
        {
            var file = Path.Combine(options.DataFolder, $"{Guid.NewGuid():N}.part");
            try
            {
                await using (var to = new FileStream(file, FileMode.CreateNew)) await body.CopyToAsync(to);
                ready.Lay(file);
                return View(options, ready);
            }
            finally
            {
                if (File.Exists(file)) File.Delete(file);
            }
        }).WithMetadata(new DisableRequestSizeLimitAttribute());
        backups.MapDelete("/restore", (StartOptions options, LaidReady ready) =>
        {
            ready.Withdraw();
            return View(options, ready);
        });
    }

    private static Microsoft.AspNetCore.Http.HttpResults.Ok<BackupsView> View(StartOptions options, LaidReady ready) => TypedResults.Ok(new BackupsView(DailyBackup.Days(options.DataFolder), ready.Waiting));
}
