namespace PatientPawl.Core;

/// <summary>The corner of the rear axle, seen from the driver's seat.</summary>
public enum Side
{
    /// <summary>Left corner.</summary>
    Left,
    /// <summary>Right corner.</summary>
    Right,
}

/// <summary>Small helpers for sides.</summary>
public static class Sides
{
    /// <summary>Left, then right.</summary>
    public static IReadOnlyList<Side> Both { get; } = [Side.Left, Side.Right];

    /// <summary>The opposite corner.</summary>
    public static Side Other(this Side side) => side == Side.Left ? Side.Right : Side.Left;

    /// <summary><c>left</c> or <c>right</c>.</summary>
    public static string Word(this Side side) => side == Side.Left ? "left" : "right";
}
