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
        backups.MapGet("/backups", (StartOptions options) => TypedResults.Ok(View(options)));
        // A server cannot change what it works on under the people who work with it: the next start does.
        backups.MapPost("/restore/kept", (RestoreDay day, StartOptions options) => Laid(options, () =>
        {
            var file = DailyBackup.FileOf(options.DataFolder, day.Day);
            if (!File.Exists(file)) throw new InputException(new InputError("day", Figure.Date(day.Day), "a day that a backup is kept of", "There is no backup of that day here."));
            return Backups.Lay(options.DataFolder, file);
        }));
        backups.MapPost("/restore/file", async (Stream body, StartOptions options) =>
        {
            var file = Path.Combine(options.DataFolder, $"{Guid.NewGuid():N}.part");
            try
            {
                await using (var to = new FileStream(file, FileMode.CreateNew)) await body.CopyToAsync(to);
                return Laid(options, () => Backups.Lay(options.DataFolder, file));
            }
            finally
            {
                if (File.Exists(file)) File.Delete(file);
            }
        }).WithMetadata(new DisableRequestSizeLimitAttribute());
        backups.MapDelete("/restore", (StartOptions options) =>
        {
            Backups.Withdraw(options.DataFolder);
            return TypedResults.Ok(View(options));
        });
    }

    private static BackupsView View(StartOptions options) => new(DailyBackup.Days(options.DataFolder), Backups.Waiting(options.DataFolder));

    private static Microsoft.AspNetCore.Http.HttpResults.Ok<BackupsView> Laid(StartOptions options, Func<BackupContents> lay)
    {
        try
        {
            return TypedResults.Ok(View(options) with { Waiting = lay() });
        }
        catch (FolderException e)
        {
            throw new NotAllowedException(e.Message, [], []);
        }
    }
}
