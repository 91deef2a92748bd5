namespace PatientPawl.Data;

/// <summary>
/// What was made of the versions of jobs that were asked for last. An older one never takes the place of a newer, and what was not asked for
/// for longest goes first.
/// </summary>
/// <param name="most">How many are kept.</param>
public sealed class Latest<T>(int most)
{
    private readonly Lock _lock = new();
    private readonly Dictionary<Guid, LinkedListNode<(Guid Id, int Version, T Value)>> _byId = [];
    private readonly LinkedList<(Guid Id, int Version, T Value)> _order = [];

    /// <summary>What is kept of a job; null where nothing is.</summary>
    public (int Version, T Value)? Find(Guid id)
    {
        lock (_lock)
        {
            if (!_byId.TryGetValue(id, out var node)) return null;
            _order.Remove(node);
            _order.AddFirst(node);
            return (node.Value.Version, node.Value.Value);
        }
    }

    /// <summary>Keeps what was made of a version, unless that of a later one is there; gives back the one that is kept.</summary>
    public (int Version, T Value) Keep(Guid id, int version, T value)
    {
        lock (_lock)
        {
            if (_byId.TryGetValue(id, out var node))
            {
                if (node.Value.Version >= version) return (node.Value.Version, node.Value.Value);
                _order.Remove(node);
            }

            _byId[id] = _order.AddFirst((id, version, value));
            if (_order.Count > most)
            {
                _byId.Remove(_order.Last!.Value.Id);
                _order.RemoveLast();
            }

            return (version, value);
        }
    }

    /// <summary>Keeps nothing of a job any more.</summary>
    public void Forget(Guid id)
    {
        lock (_lock)
        {
            if (_byId.Remove(id, out var node)) _order.Remove(node);
        }
    }
}
