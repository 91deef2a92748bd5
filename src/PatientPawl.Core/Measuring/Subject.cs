namespace PatientPawl.Core.Measuring;

/// <summary>What can be judged against a limit.</summary>
public enum Judged
{
    /// <summary>The inner pad's lining, without its backing plate.</summary>
    InnerLining,
    /// <summary>The outer pad's lining, without its backing plate.</summary>
    OuterLining,
    /// <summary>The rotor's thickness at its thinnest.</summary>
    RotorThickness,
    /// <summary>How much the rotor's thickness varies round the ring.</summary>
    ThicknessVariation,
    /// <summary>The rotor's runout on its hub.</summary>
    TotalRunout,
    /// <summary>The drum's largest diameter.</summary>
    DrumDiameter,
    /// <summary>How far the drum is out of round.</summary>
    DrumOutOfRound,
    /// <summary>The thinnest lining of the parking shoes.</summary>
    ShoeLining,
}

/// <summary>What a verdict is about; its sentence is made from it.</summary>
/// <param name="Judged">What was judged.</param>
/// <param name="Side">The corner; null where the bench was not told.</param>
public sealed record Subject(Judged Judged, Side? Side = null)
{
    /// <summary>In words, for example <c>Rotor, left</c>.</summary>
    public string Says => Side is { } side ? $"{Name(Judged)}, {side.Word()}" : Name(Judged);

    /// <summary>What it is about, without the corner.</summary>
    public string Short => Name(Judged);

    // A job of an older version stored the sentence alone; no later one is read back.
    internal static Subject? OfOldSentence(string what) => Enum.GetValues<Judged>().Where(j => what.Split(',')[0] == Name(j)).ToArray() is not [var judged] ? null : new(judged,
        what.EndsWith(", left", StringComparison.Ordinal) ? Core.Side.Left : what.EndsWith(", right", StringComparison.Ordinal) ? Core.Side.Right : null);

    private static string Name(Judged judged) => judged switch
    {
        Judged.InnerLining => "Inner lining",
        Judged.OuterLining => "Outer lining",
        Judged.RotorThickness => "Rotor",
        Judged.ThicknessVariation => "Thickness variation",
        Judged.TotalRunout => "Total runout",
        Judged.DrumDiameter => "Drum",
        Judged.DrumOutOfRound => "Drum out of round",
        _ => "Shoe lining",
    };
}
