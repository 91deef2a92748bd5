using System.Runtime.CompilerServices;
using System.Threading.Channels;

namespace PatientPawl.Data;

/// <summary>A job has moved on.</summary>
public sealed record JobChanged(Guid JobId, int Version);

/// <summary>Tells whoever listens which job has moved on, after it was stored.</summary>
public sealed class JobChanges
{
    private readonly Lock _lock = new();
    private readonly List<Channel<JobChanged>> _listeners = [];

    /// <summary>How many listen.</summary>
    public int Listeners
    {
        get
        {
            lock (_lock) return _listeners.Count;
        }
    }

    /// <summary>Tells everyone. Who is too slow to hear loses the oldest, and nobody waits.</summary>
    public void Publish(JobChanged change)
    {
        lock (_lock)
        {
            foreach (var listener in _listeners) listener.Writer.TryWrite(change);
        }
    }

    /// <summary>What happens from now on, until <paramref name="stopping"/>; null after a while without anything, to show that the line stands.</summary>
    public async IAsyncEnumerable<JobChanged?> Listen(TimeSpan still, [EnumeratorCancellation] CancellationToken stopping)
    {
        var mine = Channel.CreateBounded<JobChanged>(new BoundedChannelOptions(256) { FullMode = BoundedChannelFullMode.DropOldest });
        lock (_lock) _listeners.Add(mine);
        try
        {
            yield return null;
            while (!stopping.IsCancellationRequested)
            {
                using var waiting = CancellationTokenSource.CreateLinkedTokenSource(stopping);
                waiting.CancelAfter(still);
                JobChanged? next = null;
                try
                {
                    next = await mine.Reader.ReadAsync(waiting.Token);
                }
                catch (OperationCanceledException)
                {
                    if (stopping.IsCancellationRequested) yield break;
                }

                yield return next;
            }
        }
        finally
        {
            lock (_lock) _listeners.Remove(mine);
        }
    }
}
