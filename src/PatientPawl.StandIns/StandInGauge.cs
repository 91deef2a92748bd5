using System.Runtime.CompilerServices;
using System.Threading.Channels;
using PatientPawl.Core;
using PatientPawl.Core.Measuring;
using UnitsNet;

namespace PatientPawl.StandIns;

/// <summary>What a stand-in gauge reads: a true size, and how much its readings scatter.</summary>
/// <param name="Size">The true size, -5 to 500 mm.</param>
/// <param name="Noise">Standard deviation of its readings, 0 to 1 mm.</param>
/// <param name="Unit">The unit on its display.</param>
public sealed record StandInSetting(Length Size, Length Noise, GaugeUnit Unit)
{
    /// <summary>Refuses settings no gauge could read.</summary>
    /// <exception cref="InputException">Naming each field, value and range.</exception>
    public StandInSetting Checked()
    {
        new Checks().Millimetres("sizeMm", Size, -5, 500).Millimetres("noiseMm", Noise, 0, 1).ThrowIfAny();
        return this;
    }
}

/// <summary>
/// A gauge that is not there: it reads a chosen size with noise, to its instrument's resolution, and sends what its display shows through the
/// same interface as a real one. Simulated; for rehearsal and for tests.
/// </summary>
public sealed class StandInGauge(Instrument instrument, int seed) : IGauge
{
    private readonly Random _random = new(seed);
    private readonly Lock _lock = new();
    private readonly List<Channel<GaugeReading>> _listeners = [];
    private int _seq;

    /// <inheritdoc/>
    public Instrument Instrument { get; } = instrument;

    /// <summary>Presses its data button: every listener gets the same figures.</summary>
    public GaugeReading Press(StandInSetting setting)
    {
        ArgumentNullException.ThrowIfNull(setting);
        setting.Checked();
        lock (_lock)
        {
            // Box and Muller: two even numbers make a normal one.
            var normal = Math.Sqrt(-2 * Math.Log(1 - _random.NextDouble())) * Math.Cos(2 * Math.PI * _random.NextDouble());
            var reading = new GaugeReading(++_seq, IGauge.Show(setting.Size + setting.Noise * normal, Instrument, setting.Unit), setting.Unit);
            foreach (var listener in _listeners) listener.Writer.TryWrite(reading);
            return reading;
        }
    }

    /// <inheritdoc/>
    public async IAsyncEnumerable<GaugeReading> ReadingsAsync([EnumeratorCancellation] CancellationToken cancellation)
    {
        // A listener that falls asleep loses the oldest, not the server its memory.
        var channel = Channel.CreateBounded<GaugeReading>(new BoundedChannelOptions(64) { FullMode = BoundedChannelFullMode.DropOldest });
        lock (_lock) _listeners.Add(channel);
        try
        {
            await foreach (var reading in channel.Reader.ReadAllAsync(cancellation)) yield return reading;
        }
        finally
        {
            lock (_lock) _listeners.Remove(channel);
        }
    }
}
