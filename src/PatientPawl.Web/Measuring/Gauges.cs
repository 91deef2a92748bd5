using System.Collections.Concurrent;
using PatientPawl.Core.Measuring;
using PatientPawl.StandIns;

namespace PatientPawl.Web.Measuring;

/// <summary>The gauges on the benches: one a browser and instrument, so that two people's readings never cross.</summary>
public sealed class Gauges
{
    private readonly ConcurrentDictionary<(Guid Bench, string Instrument), StandInGauge> _gauges = new();

    /// <summary>The stand-in gauge of a bench.</summary>
    public StandInGauge For(Guid bench, Instrument instrument)
    {
        ArgumentNullException.ThrowIfNull(instrument);
        // A browser's gauge is nothing worth keeping: beyond a workshop's worth of them all are let go.
        if (_gauges.Count > 500) _gauges.Clear();
        return _gauges.GetOrAdd((bench, instrument.Id), _ => new(instrument, bench.GetHashCode()));
    }
}
