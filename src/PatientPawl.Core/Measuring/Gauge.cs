using UnitsNet;

namespace PatientPawl.Core.Measuring;

/// <summary>The unit a gauge shows.</summary>
public enum GaugeUnit
{
    /// <summary>Millimetres.</summary>
    Mm,
    /// <summary>Inches.</summary>
    Inch,
}

/// <summary>What a gauge sent: figures as its display showed them.</summary>
/// <param name="Seq">Counts up, so that no press is taken twice.</param>
/// <param name="Digits">The figures, for example <c>190.96</c> or <c>7.518</c>; a keyboard-like gauge types these and then Enter.</param>
/// <param name="Unit">The unit on its display.</param>
public sealed record GaugeReading(int Seq, string Digits, GaugeUnit Unit);

/// <summary>A gauge with a data button. A real one and the stand-in answer alike.</summary>
public interface IGauge
{
    /// <summary>What it is.</summary>
    Instrument Instrument { get; }

    /// <summary>Readings as they are sent, until cancelled.</summary>
    IAsyncEnumerable<GaugeReading> ReadingsAsync(CancellationToken cancellation);

    /// <summary>The figures a length shows on its display: rounded to its resolution, in its unit.</summary>
    static string Show(Length length, Instrument instrument, GaugeUnit unit)
    {
        ArgumentNullException.ThrowIfNull(instrument);
        var step = instrument.Resolution.Millimeters;
        var mm = Math.Round(length.Millimeters / step, MidpointRounding.AwayFromZero) * step;
        // An inch display carries a decimal more than its step in mm needs.
        return unit == GaugeUnit.Mm ? Figure.Fixed(mm, Decimals(step)) : Figure.Fixed(mm / 25.4, Decimals(step) + 1);
    }

    private static int Decimals(double step) => step >= 1 ? 0 : (int)Math.Ceiling(-Math.Log10(step) - 1e-9);
}
