using PatientPawl.Core.Jobs;

namespace PatientPawl.Data;

/// <summary>The folded states asked for last. Publishing is done by the one writer; a reader's older fold never takes its place.</summary>
internal sealed class LatestStates(int most)
{
    private readonly Lock _lock = new();
    private readonly Dictionary<Guid, LinkedListNode<(Guid Id, JobState State)>> _byId = [];
    private readonly LinkedList<(Guid Id, JobState State)> _order = [];

    public JobState? Find(Guid id)
    {
        lock (_lock)
        {
            if (!_byId.TryGetValue(id, out var node)) return null;
            _order.Remove(node);
            _order.AddFirst(node);
            return node.Value.State;
        }
    }

    /// <summary>Keeps a state that was read, unless a later one is there; gives back the one that is kept.</summary>
    public JobState Keep(Guid id, JobState state)
    {
        lock (_lock)
        {
            if (_byId.TryGetValue(id, out var node))
            {
                if (node.Value.State.Version >= state.Version) return node.Value.State;
                _order.Remove(node);
            }

            _byId[id] = _order.AddFirst((id, state));
            if (_order.Count > most)
            {
                _byId.Remove(_order.Last!.Value.Id);
                _order.RemoveLast();
            }

            return state;
        }
    }

    public void Publish(Guid id, JobState state) => Keep(id, state);
}
