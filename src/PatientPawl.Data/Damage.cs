using Microsoft.Data.Sqlite;

namespace PatientPawl.Data;

/// <summary>The data folder cannot be used as it is. The message is the one sentence for console and page.</summary>
public sealed class FolderException(string message, Exception? inner = null) : Exception(message, inner);

/// <summary>One event of a job cannot be read, or is not what was stored. The other jobs go on.</summary>
public sealed class DamagedJobException(Guid jobId, int seq, string how, Exception? inner = null)
    : Exception($"This job cannot be shown: event {seq} of its log {how}. Every other job goes on; restore this one from a backup.", inner)
{
    /// <summary>The job.</summary>
    public Guid JobId { get; } = jobId;

    /// <summary>The event's place in the order.</summary>
    public int Seq { get; } = seq;
}

/// <summary>What goes wrong with a database on disk, each in its own sentence.</summary>
public static class StorageTrouble
{
    // SQLite's primary result codes: https://www.sqlite.org/rescode.html
    private const int ReadOnly = 8, Corrupt = 11, Full = 13, CannotOpen = 14, NotADatabase = 26;

    /// <summary>The sentence for a failure of the database; null when it is none of these.</summary>
    public static string? Says(Exception e) => e switch
    {
        SqliteException { SqliteErrorCode: Full } => "The disk is full: nothing was stored. Make room, then send it again.",
        SqliteException { SqliteErrorCode: ReadOnly } => "The data folder cannot be written to: nothing was stored. Its owner has to give write permission back.",
        SqliteException { SqliteErrorCode: Corrupt } => "The database is damaged: stop, keep a copy of the folder, and restore the last backup.",
        SqliteException { SqliteErrorCode: NotADatabase } => "The file patient-pawl.db is not a database any more: its header is damaged. Keep a copy of the folder, and restore the last backup.",
        SqliteException { SqliteErrorCode: CannotOpen } => "The database cannot be opened: the folder is missing, or may not be read.",
        UnauthorizedAccessException => "The data folder may not be used by this user: its permissions say no.",
        _ => null,
    };
}

/// <summary>The folder belongs to one running server. The lock goes with the process, however it ends.</summary>
public sealed class FolderLock : IDisposable
{
    private readonly FileStream _held;

    /// <summary>Takes the folder.</summary>
    /// <exception cref="FolderException">Another server has it.</exception>
    public FolderLock(string folder)
    {
        var path = Path.Combine(folder, "in-use.lock");
        try
        {
            _held = new(path, FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
        }
        catch (IOException e)
        {
            throw new FolderException($"Another Patient Pawl works in {folder}: two on one folder would lose work. Stop it, or choose another folder with --data.", e);
        }
    }

    /// <summary>Lets it go.</summary>
    public void Dispose() => _held.Dispose();
}
