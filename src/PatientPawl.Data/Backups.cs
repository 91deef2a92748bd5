using System.IO.Compression;
using Dapper;
using Microsoft.Data.Sqlite;

namespace PatientPawl.Data;

/// <summary>What is in a backup.</summary>
/// <param name="Jobs">How many jobs.</param>
/// <param name="Events">How many events.</param>
public sealed record BackupContents(long Jobs, long Events);

/// <summary>
/// Backups: one file with the database, as SQLite's online backup makes it while others write, and the key that its seals were made with.
/// Copying the database file alone loses what still stands in its log.
/// </summary>
public static class Backups
{
    private const string Database = "patient-pawl.db", Key = "seal.key";

    // Lies in the data folder until the next start puts it back.
    private const string ToPutBack = "restore-at-start.pawl-backup";

    /// <summary>Makes a backup; the server may go on working.</summary>
    /// <param name="folder">The data folder.</param>
    /// <param name="file">Where it goes; an older one of that name is replaced once the new one is whole.</param>
    /// <returns>How many events are in it.</returns>
    /// <exception cref="FolderException">There is no database, or the file cannot be written.</exception>
    public static long Make(string folder, string file)
    {
        var from = Path.Combine(folder, Database);
        if (!File.Exists(from)) throw new FolderException($"There is nothing to back up in {folder}.");
        string? work = null;
        var half = file + ".part";
        try
        {
            work = Directory.CreateTempSubdirectory("pawl-backup").FullName;
            var copy = Path.Combine(work, Database);
            var events = Copied(from, copy);
            // It holds the key: from its first byte on nobody else reads it.
            var options = new FileStreamOptions { Mode = FileMode.Create, Access = FileAccess.ReadWrite };
            if (!OperatingSystem.IsWindows()) options.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
            using (var zip = new ZipArchive(new FileStream(half, options), ZipArchiveMode.Create))
            {
                zip.CreateEntryFromFile(copy, Database);
                zip.CreateEntryFromFile(Path.Combine(folder, Key), Key);
            }

            File.Move(half, file, overwrite: true);
            return events;
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException or SqliteException)
        {
            throw new FolderException($"The backup could not be made: {StorageTrouble.Says(e) ?? e.Message} An older one of that name is untouched.", e);
        }
        finally
        {
            if (File.Exists(half)) File.Delete(half);
            if (work is not null) Directory.Delete(work, recursive: true);
        }
    }

    /// <summary>Puts a backup back. What was in the folder is moved aside, never thrown away.</summary>
    /// <returns>Where what was there lies now; null when the folder was empty.</returns>
    /// <exception cref="FolderException">The file is no backup, is damaged, or a server works in the folder.</exception>
    public static string? Restore(string folder, string file, DateTimeOffset now)
    {
        if (!File.Exists(file)) throw new FolderException($"There is no file {file}.");
        Directory.CreateDirectory(folder);
        using var held = new FolderLock(folder);
        // In the folder itself: once all of it is there and whole, it is moved into place and nothing more can run out of room.
        var work = Path.Combine(folder, "restoring");
        try
        {
            Directory.CreateDirectory(work);
            using (var zip = ZipFile.OpenRead(file))
            {
                foreach (var name in new[] { Database, Key })
                    (zip.GetEntry(name) ?? throw new FolderException($"{file} is no backup of this product: {name} is not in it.")).ExtractToFile(Path.Combine(work, name), overwrite: true);
            }

            Whole(Path.Combine(work, Database));
            string? aside = null;
            var here = Directory.GetFiles(folder, Database + "*").Concat(Directory.GetFiles(folder, Key)).Concat(Directory.GetFiles(folder, "heads")).ToArray();
            if (here.Length > 0)
            {
                aside = Path.Combine(folder, $"before-restore-{now:yyyyMMdd-HHmmss}");
                Directory.CreateDirectory(aside);
                foreach (var old in here) File.Move(old, Path.Combine(aside, Path.GetFileName(old)));
            }

            foreach (var name in new[] { Database, Key })
            {
                File.Move(Path.Combine(work, name), Path.Combine(folder, name));
                if (!OperatingSystem.IsWindows()) File.SetUnixFileMode(Path.Combine(folder, name), UnixFileMode.UserRead | UnixFileMode.UserWrite);
            }

            return aside;
        }
        catch (InvalidDataException e)
        {
            throw new FolderException($"{file} is no backup of this product, or it is damaged. Nothing was changed.", e);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new FolderException($"{file} could not be put back: {StorageTrouble.Says(e) ?? e.Message} What was there is still in {folder}.", e);
        }
        finally
        {
            if (Directory.Exists(work)) Directory.Delete(work, recursive: true);
        }
    }

    /// <summary>Lays a backup ready for the next start, once it has been read through.</summary>
    /// <returns>What is in it.</returns>
    /// <exception cref="FolderException">It is no backup, or it is damaged: nothing was laid ready.</exception>
    public static BackupContents Lay(string folder, string file)
    {
        var contents = Contents(file);
        try
        {
            var half = Path.Combine(folder, ToPutBack + ".part");
            File.Copy(file, half, overwrite: true);
            if (!OperatingSystem.IsWindows()) File.SetUnixFileMode(half, UnixFileMode.UserRead | UnixFileMode.UserWrite);
            File.Move(half, Path.Combine(folder, ToPutBack), overwrite: true);
            return contents;
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new FolderException($"The backup could not be laid ready: {StorageTrouble.Says(e) ?? e.Message} Nothing was changed.", e);
        }
    }

    /// <summary>Nothing is put back at the next start.</summary>
    public static void Withdraw(string folder) => File.Delete(Path.Combine(folder, ToPutBack));

    /// <summary>Puts back what was laid ready, before anything of the folder is opened.</summary>
    /// <returns>What was done, in words; null when nothing was laid ready.</returns>
    /// <exception cref="FolderException">It could not be: what was there is as it was.</exception>
    public static string? PutBack(string folder, DateTimeOffset now)
    {
        var file = Path.Combine(folder, ToPutBack);
        if (!File.Exists(file)) return null;
        var aside = Restore(folder, file, now);
        File.Delete(file);
        return $"The backup that was laid ready was put back.{(aside is null ? "" : $" What was there lies in {aside}.")}";
    }

    private static BackupContents Contents(string file)
    {
        var work = Directory.CreateTempSubdirectory("pawl-backup").FullName;
        try
        {
            var database = Path.Combine(work, Database);
            using (var zip = ZipFile.OpenRead(file))
            {
                foreach (var name in new[] { Database, Key }) if (zip.GetEntry(name) is null) throw new FolderException($"This is no backup of this product: {name} is not in it. Nothing was changed.");
                zip.GetEntry(Database)!.ExtractToFile(database);
            }

            Whole(database);
            using var connection = Open(database, SqliteOpenMode.ReadOnly);
            return new(connection.ExecuteScalar<long>("select count(*) from job"), connection.ExecuteScalar<long>("select count(*) from job_event"));
        }
        catch (Exception e) when (e is InvalidDataException or SqliteException)
        {
            throw new FolderException("This is no backup of this product, or it is damaged. Nothing was changed.", e);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new FolderException($"The backup could not be read: {StorageTrouble.Says(e) ?? e.Message} Nothing was changed.", e);
        }
        finally
        {
            Directory.Delete(work, recursive: true);
        }
    }

    private static long Copied(string from, string to)
    {
        using var source = Open(from, SqliteOpenMode.ReadWrite);
        using var target = Open(to, SqliteOpenMode.ReadWriteCreate);
        source.BackupDatabase(target);
        return target.ExecuteScalar<long>("select count(*) from job_event");
    }

    private static void Whole(string database)
    {
        try
        {
            using var connection = Open(database, SqliteOpenMode.ReadOnly);
            if (connection.ExecuteScalar<string>("pragma integrity_check") is not "ok" and var says) throw new FolderException($"The database in the backup is damaged: {says}. Nothing was changed.");
        }
        catch (SqliteException e)
        {
            throw new FolderException("The database in the backup is damaged. Nothing was changed.", e);
        }
    }

    private static SqliteConnection Open(string path, SqliteOpenMode mode)
    {
        // Not pooled: the file is moved or deleted right after.
        var connection = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = path, Mode = mode, Pooling = false, DefaultTimeout = 10 }.ToString());
        connection.Open();
        return connection;
    }
}
