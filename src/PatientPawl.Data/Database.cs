using System.Data;
using Dapper;
using DbUp;
using DbUp.Engine.Output;
using Microsoft.Data.Sqlite;

namespace PatientPawl.Data;

/// <summary>The SQLite database of one workshop: WAL, foreign keys, every commit on disk before it is acknowledged, one writer.</summary>
public sealed class Database : IDisposable
{
    private readonly string _connectionString;
    private readonly SemaphoreSlim _writer = new(1, 1);

    public Database(string folder)
    {
        Directory.CreateDirectory(folder);
        _connectionString = new SqliteConnectionStringBuilder { DataSource = Path.Combine(folder, "patient-pawl.db"), ForeignKeys = true, DefaultTimeout = 10 }.ToString();
        using (var connection = Open()) connection.Execute("pragma journal_mode = wal");
        var upgrade = DeployChanges.To.SqliteDatabase(_connectionString).WithScriptsEmbeddedInAssembly(typeof(Database).Assembly)
            .WithTransactionPerScript().LogTo(new NoUpgradeLog()).Build().PerformUpgrade();
        if (!upgrade.Successful) throw new InvalidOperationException($"The database could not be brought up to date: {upgrade.ErrorScript?.Name}.", upgrade.Error);
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
    /// Runs one write in a <c>begin immediate</c> transaction; commits when it returns, rolls back when it throws. What others are to see
    /// of it is made known by <paramref name="committed"/>, before the next writer begins: nobody starts from what was before.
    /// </summary>
    public T Write<T>(Func<SqliteConnection, SqliteTransaction, T> work, Action<T>? committed = null)
    {
        ArgumentNullException.ThrowIfNull(work);
        _writer.Wait();
        try
        {
            using var connection = Open();
            using var transaction = connection.BeginTransaction(IsolationLevel.Serializable, deferred: false);
            var result = work(connection, transaction);
            transaction.Commit();
            committed?.Invoke(result);
            return result;
        }
        finally
        {
            _writer.Release();
        }
    }

    public T Read<T>(Func<SqliteConnection, T> work)
    {
        ArgumentNullException.ThrowIfNull(work);
        using var connection = Open();
        return work(connection);
    }

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        _writer.Dispose();
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
