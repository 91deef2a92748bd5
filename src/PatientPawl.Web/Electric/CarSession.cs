using System.Collections.Concurrent;
using PatientPawl.Core.Electric;

namespace PatientPawl.Web.Electric;

/// <summary>The one tool on the link, opened when it is needed and dropped when the link is lost, and what went over it, by job.</summary>
public sealed class CarSession(CarHost cars, TimeProvider clock) : IAsyncDisposable
{
    private const int MostExchanges = 400;

    private readonly ConcurrentDictionary<Guid, Queue<Exchange>> _exchanges = new();
    private readonly SemaphoreSlim _opening = new(1, 1);
    private IScanTool? _tool;
    private Guid _job;

    /// <summary>Asks the car something for a job. A link that is lost on the way is dropped, and opened anew for the next question.</summary>
    /// <exception cref="LinkLostException">Nobody answered.</exception>
    public async Task<T> AskAsync<T>(Guid job, Func<IScanTool, Task<T>> ask, CancellationToken cancellation)
    {
        ArgumentNullException.ThrowIfNull(ask);
        try
        {
            return await ask(await Tool(job, cancellation));
        }
        catch (LinkLostException)
        {
            await Drop();
            throw;
        }
    }

    /// <summary>What went over the link for a job, the newest last.</summary>
    public IReadOnlyList<Exchange> Exchanges(Guid job)
    {
        if (!_exchanges.TryGetValue(job, out var queue)) return [];
        lock (queue) return [.. queue];
    }

    private async Task<IScanTool> Tool(Guid job, CancellationToken cancellation)
    {
        await _opening.WaitAsync(cancellation);
        try
        {
            _job = job;
            var (host, port) = cars.Address;
            return _tool ??= await DoipScanTool.ConnectAsync(host, port, Note, clock, cancellation);
        }
        finally
        {
            _opening.Release();
        }
    }

    private async Task Drop()
    {
        await _opening.WaitAsync();
        var gone = _tool;
        _tool = null;
        _opening.Release();
        if (gone is not null) await gone.DisposeAsync();
    }

    private void Note(Exchange e)
    {
        var queue = _exchanges.GetOrAdd(_job, _ => new());
        lock (queue)
        {
            // What is asked twenty times a second says nothing new: one line stands for all of them.
            if (e.IsState && queue.TakeLast(2).Any(x => x.Sent == e.Sent && x.IsState)) return;
            queue.Enqueue(e);
            while (queue.Count > MostExchanges) queue.Dequeue();
        }
    }

    /// <summary>Lets go of the car.</summary>
    public async ValueTask DisposeAsync()
    {
        await Drop();
        _opening.Dispose();
    }
}
