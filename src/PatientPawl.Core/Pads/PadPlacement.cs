using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Vehicles;

namespace PatientPawl.Core.Pads;

/// <summary>Where the caliper sits.</summary>
public enum CaliperPlace
{
    /// <summary>Behind the axle.</summary>
    BehindAxle,
    /// <summary>Ahead of the axle.</summary>
    AheadOfAxle,
}

/// <summary>What the new pads carry.</summary>
/// <param name="Caliper">Where the caliper sits.</param>
/// <param name="Indicator">A wear indicator on one pad of the corner.</param>
/// <param name="PistonSpring">One pad has a spring or clip that goes into the piston.</param>
/// <param name="PistonPin">One pad has a pin for the piston's slot.</param>
/// <param name="ElectricSensor">This corner carries the electric wear sensor.</param>
/// <param name="SensorWornThrough">The old sensor's contact has worn through.</param>
public sealed record PadParts(CaliperPlace Caliper, bool Indicator, bool PistonSpring, bool PistonPin, bool ElectricSensor, Known SensorWornThrough)
{
    /// <summary>True where the pad maker puts the indicator at the trailing end.</summary>
    public bool IndicatorTrails { get; init; }

    /// <summary>True where a notch or arrow says which way round a pad goes.</summary>
    public bool Notch { get; init; }
}

/// <summary>How the pads go in.</summary>
/// <param name="LeadingEndAtBottom">True when the leading end is the lower one.</param>
/// <param name="Lines">What goes where, in order.</param>
/// <param name="Reasons">Why.</param>
public sealed record PlacementVerdict(bool LeadingEndAtBottom, IReadOnlyList<string> Lines, Reasons Reasons) : IReasoned
{
    /// <summary>True when the wear indicator stands at the bottom; null where there is none.</summary>
    public bool? IndicatorAtBottom { get; init; }

    /// <summary>True when the notch or arrow points up, the way the rotor passes there going forward; null where there is none.</summary>
    public bool? ArrowUp { get; init; }
}

/// <summary>Says which pad goes where, which end leads, and what to mind.</summary>
[Engine]
public static class PadPlacement
{
    /// <summary>
    /// Rolling forward, the rotor behind the axle moves up and ahead of it down; so a caliper behind the axle has its leading end, where
    /// the rotor enters, at the bottom, and one ahead of the axle at the top. The same left and right.
    /// </summary>
    public static PlacementVerdict Card(PadParts parts)
    {
        ArgumentNullException.ThrowIfNull(parts);
        var bottom = parts.Caliper == CaliperPlace.BehindAxle;
        var end = bottom ? "bottom" : "top";
        bool? indicator = parts.Indicator ? bottom != parts.IndicatorTrails : null;
        List<string> lines = [$"The leading end is the {end} one: there the rotor enters."];
        if (indicator is { } low)
        {
            lines.Add($"The pad with the wear indicator goes inside, its indicator at the {(low ? "bottom" : "top")}"
                + (parts.IndicatorTrails ? ": this maker puts it at the trailing end." : ". The pad maker's drawing outranks this."));
        }

        if (parts.Notch) lines.Add("The notch or arrow points the way the rotor turns going forward.");
        if (parts.PistonSpring) lines.Add("The pad with the spring or clip goes inside, into the piston.");
        if (parts.PistonPin) lines.Add("The pin on the inner pad's back goes into the piston's slot: turn the slot to it first. On the piston's land it makes the pad sit crooked: a spongy pedal, and taper wear.");
        if (parts.ElectricSensor)
        {
            lines.Add(parts.SensorWornThrough switch
            {
                Known.Yes => "Wear sensor: a new one; its contact is worn through. Reset its light.",
                Known.No => "Wear sensor: the old one goes back, clip seated; reset its light.",
                _ => "Wear sensor: look whether its contact is worn through before it goes back.",
            });
            lines.Add("Its plug is not the wheel-speed plug.");
        }

        lines.Add("Each pad slides by hand in the bracket. Too tight: clean the lands, then dress the ears' coating, never the lining.");
        return new(bottom, lines, new Trail("PadPlacement.Card").Input("Caliper", bottom ? "behind the axle" : "ahead of the axle")
            .Evidence("Rolling forward the rotor there moves", bottom ? "up" : "down", "geometry").Evidence("Indicator", "inner pad, leading end, usual", "practice-pads").Conclude(lines[0]).WouldChange("The pad maker's own drawing.").Done())
        {
            IndicatorAtBottom = indicator,
            ArrowUp = parts.Notch ? bottom : null,
        };
    }
}
