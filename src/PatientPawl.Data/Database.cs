using Dapper;
using DbUp;
using DbUp.Engine.Output;
using Microsoft.Data.Sqlite;

namespace PatientPawl.Data;

/// <summary>The SQLite database of one workshop: WAL, foreign keys, every commit on disk before it is acknowledged, one writer.</summary>
public sealed class Database : IDisposable
{
    private readonly string _connectionString;
    private readonly Writer _writer;
    private readonly FolderLock _lock;

    /// <summary>Opens the workshop's database, and brings an older one up to date.</summary>
    /// <exception cref="FolderException">In use, damaged, written by a newer version, or not to be written to: one sentence.</exception>
    public Database(string folder)
    {
        try
        {
            Directory.CreateDirectory(folder);
            // Names, plates and records of a workshop are its own: nobody else on the machine reads them.
            if (!OperatingSystem.IsWindows()) File.SetUnixFileMode(folder, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
        }
        catch (Exception e) when (e is UnauthorizedAccessException or IOException)
        {
            throw new FolderException($"The data folder {folder} cannot be made or used: {e.Message}", e);
        }

        _lock = new(folder);
        _writer = new(OpenWriter);
        _connectionString = new SqliteConnectionStringBuilder { DataSource = Path.Combine(folder, "patient-pawl.db"), ForeignKeys = true, DefaultTimeout = 10 }.ToString();
        try
        {
            using var connection = Open();
            connection.Execute("pragma journal_mode = wal");
            RefuseNewer(connection);
        }
        catch (Exception e) when (StorageTrouble.Says(e) is not null)
        {
            _lock.Dispose();
            throw new FolderException(StorageTrouble.Says(e)!, e);
        }
        catch (FolderException)
        {
            _lock.Dispose();
            throw;
        }

        var upgrade = DeployChanges.To.SqliteDatabase(_connectionString).WithScriptsEmbeddedInAssembly(typeof(Database).Assembly)
            .WithTransactionPerScript().LogTo(new NoUpgradeLog()).Build().PerformUpgrade();
        if (!upgrade.Successful)
        {
            _lock.Dispose();
            throw new FolderException($"The database could not be brought up to date ({upgrade.ErrorScript?.Name}): {upgrade.Error.Message}", upgrade.Error);
        }

        foreach (var file in Directory.GetFiles(folder, "patient-pawl.db*"))
            if (!OperatingSystem.IsWindows()) File.SetUnixFileMode(file, UnixFileMode.UserRead | UnixFileMode.UserWrite);
    }

    /// <summary>A step of the schema that this version has not: a newer one wrote it, and an older one would not keep what it keeps.</summary>
    private static void RefuseNewer(SqliteConnection connection)
    {
        if (connection.ExecuteScalar<long>("select count(*) from sqlite_master where type = 'table' and name = 'SchemaVersions'") == 0) return;
        var known = typeof(Database).Assembly.GetManifestResourceNames();
        var newer = connection.Query<string>("select ScriptName from SchemaVersions").FirstOrDefault(s => !known.Contains(s));
        if (newer is not null) throw new FolderException($"A newer Patient Pawl wrote this folder ({newer}): start that one. Nothing was changed.");
    }

    public SqliteConnection Open()
    {
        var connection = new SqliteConnection(_connectionString);
        connection.Open();
        // FULL: an acknowledged click survives a pulled plug, not only a killed process.
        connection.Execute("pragma synchronous = full");
        return connection;
    }

    /// <summary>
    /// Runs one write in a <c>begin immediate</c> transaction, which it may share with others that wait at the same moment; returns when it
    /// is committed, and is rolled back when it throws. What others are to see of it is made known by <paramref name="committed"/>, before
    /// the next transaction begins: nobody starts from what was before.
    /// </summary>
    public T Write<T>(Func<SqliteConnection, SqliteTransaction, T> work, Action<T>? committed = null)
    {
        ArgumentNullException.ThrowIfNull(work);
        return _writer.Write(work, committed).GetAwaiter().GetResult();
    }

    /// <summary>The same, without a thread that waits.</summary>
    public Task<T> WriteAsync<T>(Func<SqliteConnection, SqliteTransaction, T> work, Action<T>? committed = null)
    {
        ArgumentNullException.ThrowIfNull(work);
        return _writer.Write(work, committed);
    }

    /// <summary>Runs a statement of the writer's, prepared once.</summary>
    internal int Execute(SqliteTransaction transaction, string sql, params ReadOnlySpan<(string Name, object? Value)> values) =>
        _writer.Execute(transaction, sql, values);

    // What is written again and again goes into the database itself once in four thousand pages: every commit is on disk before that.
    private SqliteConnection OpenWriter()
    {
        var connection = Open();
        connection.Execute("pragma wal_autocheckpoint = 4000");
        return connection;
    }

    public T Read<T>(Func<SqliteConnection, T> work)
    {
        ArgumentNullException.ThrowIfNull(work);
        using var connection = Open();
        return work(connection);
    }

    public void Dispose()
    {
        _writer.Dispose();
        SqliteConnection.ClearAllPools();
        _lock.Dispose();
    }

    private sealed class NoUpgradeLog : IUpgradeLog
    {
        public void LogTrace(string format, params object[] args) { }
        public void LogDebug(string format, params object[] args) { }
        public void LogInformation(string format, params object[] args) { }
        public void LogWarning(string format, params object[] args) => Console.Error.WriteLine(format, args);
        public void LogError(string format, params object[] args) => Console.Error.WriteLine(format, args);
        public void LogError(Exception ex, string format, params object[] args) => Console.Error.WriteLine(format + " " + ex.Message, args);
    }
}
