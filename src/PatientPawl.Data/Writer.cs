using System.Data;
using Microsoft.Data.Sqlite;

namespace PatientPawl.Data;

/// <summary>
/// The one writer of a database. Whoever comes while it is at work waits, and those who wait are stored together: one transaction and one
/// wait for the disk for all of them, a savepoint for each, so that what one may not do is undone alone. Nobody is answered before the
/// commit, and nobody who waits holds a thread; where the disk or the file fails, all of them are told.
/// </summary>
internal sealed class Writer(Func<SqliteConnection> open) : IDisposable
{
    private const int MostTogether = 32;

    // SQLite's primary result code: https://www.sqlite.org/rescode.html
    private const int Constraint = 19;

    private readonly Lock _lock = new();
    private readonly Queue<Turn> _waiting = [];
    private bool _busy;

    // Held while something is stored: whoever closes the writer does so between two transactions.
    private readonly Lock _storing = new();
    private bool _closed;

    // The statements that every append runs, prepared once; one thread at a time is at work here.
    private readonly Dictionary<string, SqliteCommand> _prepared = new(StringComparer.Ordinal);
    private SqliteConnection? _connection;

    /// <summary>Runs one write; what others are to see of it is made known by <paramref name="committed"/>, before the next transaction begins.</summary>
    public Task<T> Write<T>(Func<SqliteConnection, SqliteTransaction, T> work, Action<T>? committed)
    {
        var turn = new Turn<T>(work, committed);
        lock (_lock)
        {
            _waiting.Enqueue(turn);
            if (_busy) return turn.Done;
            _busy = true;
        }

        // Who comes first stores at once; who came meanwhile does not keep them from their answer.
        if (StoreWhoWaits()) ThreadPool.UnsafeQueueUserWorkItem(_ => StoreAll(), null);
        return turn.Done;
    }

    /// <summary>Runs a statement, prepared once; only within a write.</summary>
    public int Execute(SqliteTransaction transaction, string sql, ReadOnlySpan<(string Name, object? Value)> values)
    {
        if (!_prepared.TryGetValue(sql, out var command))
        {
            command = _connection!.CreateCommand();
            command.CommandText = sql;
            foreach (var (name, value) in values) command.Parameters.AddWithValue(name, value ?? DBNull.Value);
            _prepared[sql] = command;
        }

        command.Transaction = transaction;
        foreach (var (name, value) in values) command.Parameters[name].Value = value ?? DBNull.Value;
        return command.ExecuteNonQuery();
    }

    private void StoreAll()
    {
        while (StoreWhoWaits())
        {
        }
    }

    /// <summary>Stores those who wait, in the order they came; true when others have come meanwhile.</summary>
    private bool StoreWhoWaits()
    {
        List<Turn> together = [];
        lock (_lock)
        {
            while (together.Count < MostTogether && _waiting.TryDequeue(out var next)) together.Add(next);
        }

        lock (_storing) Store(together);
        foreach (var turn in together) turn.Answer();
        lock (_lock) return _busy = _waiting.Count > 0;
    }

    private void Store(List<Turn> together)
    {
        try
        {
            ObjectDisposedException.ThrowIf(_closed, this);
            _connection ??= open();
            using (var transaction = _connection.BeginTransaction(IsolationLevel.Serializable, deferred: false))
            {
                if (together is [var alone]) alone.Work(_connection, transaction);
                else foreach (var turn in together) Within(turn, transaction);
                transaction.Commit();
            }

            foreach (var turn in together) turn.MakeKnown();
        }
        catch (Exception e)
        {
            foreach (var turn in together) turn.Fails(e);
            // Whatever happened to the disk or the file: the next one begins anew.
            if (e is SqliteException) Close();
        }
    }

    private void Within(Turn turn, SqliteTransaction transaction)
    {
        Execute(transaction, "savepoint turn", []);
        try
        {
            turn.Work(_connection!, transaction);
        }
        catch (Exception e) when (e is not SqliteException { SqliteErrorCode: not Constraint })
        {
            Execute(transaction, "rollback to turn", []);
            turn.Fails(e);
        }

        Execute(transaction, "release turn", []);
    }

    private void Close()
    {
        foreach (var command in _prepared.Values) command.Dispose();
        _prepared.Clear();
        _connection?.Dispose();
        _connection = null;
    }

    /// <summary>Waits for the write at hand; whoever comes after it is told.</summary>
    public void Dispose()
    {
        lock (_storing)
        {
            _closed = true;
            Close();
        }
    }

    /// <summary>One write, from when it came to its answer.</summary>
    private abstract class Turn
    {
        protected Exception? Failure { get; private set; }

        public abstract void Work(SqliteConnection connection, SqliteTransaction transaction);

        /// <summary>The commit stands: what follows from it is made known, unless this one was undone.</summary>
        public abstract void MakeKnown();

        public abstract void Answer();

        /// <summary>Keeps the first failure.</summary>
        public void Fails(Exception e) => Failure ??= e;
    }

    private sealed class Turn<T>(Func<SqliteConnection, SqliteTransaction, T> work, Action<T>? committed) : Turn
    {
        private readonly TaskCompletionSource<T> _done = new(TaskCreationOptions.RunContinuationsAsynchronously);
        private T _result = default!;

        public Task<T> Done => _done.Task;

        public override void Work(SqliteConnection connection, SqliteTransaction transaction) => _result = work(connection, transaction);

        public override void MakeKnown()
        {
            if (Failure is not null) return;
            try
            {
                committed?.Invoke(_result);
            }
            catch (Exception e)
            {
                // It is stored, as those are that were stored with it; only whoever asked for this is told.
                Fails(e);
            }
        }

        public override void Answer()
        {
            if (Failure is null) _done.SetResult(_result);
            else _done.SetException(Failure);
        }
    }
}
