using static PatientPawl.Core.Identification.Architecture;
using static PatientPawl.Core.Identification.Look;

namespace PatientPawl.Core.Identification;

/// <summary>What one architecture needs and what rules it out.</summary>
/// <param name="Architecture">The architecture.</param>
/// <param name="Requires">Looks of which at least one must be yes; it falls when every one of them has been answered no. Empty: requires nothing.</param>
/// <param name="ExcludedBy">Observations each of which fells it.</param>
public sealed record EvidenceRow(Architecture Architecture, IReadOnlyList<Observation> Requires, IReadOnlyList<Observation> ExcludedBy);

/// <summary>The evidence table: plain rows, no weights. Common practice, no source.</summary>
public static class EvidenceTable
{
    private static Observation Is(Look look, Seen seen) => new(look, seen);
    private static readonly Observation Hand = Is(CabinControl, Seen.HandLever);
    private static readonly Observation Foot = Is(CabinControl, Seen.FootPedal);
    private static readonly Observation Button = Is(CabinControl, Seen.Switch);
    private static readonly Observation Puller = Is(PullerBox, Seen.Yes);
    private static readonly Observation Lever = Is(CaliperLever, Seen.Yes);
    private static readonly Observation Motor = Is(CaliperMotor, Seen.Yes);
    private static readonly Observation Cable = Is(PlateCable, Seen.Yes);
    private static readonly Observation PlateMot = Is(PlateMotor, Seen.Yes);
    private static readonly Observation Second = Is(SecondCaliper, Seen.Yes);
    private static readonly Observation Cup = Is(PistonFace, Seen.PlainCup);
    private static readonly Observation Opposed = Is(OpposedPistons, Seen.Yes);
    private static readonly Observation Hex = Is(RearHexPlug, Seen.Yes);
    private static readonly Observation Hole = Is(HatHole, Seen.Yes);
    private static readonly Observation Moves = Is(PushMoves, Seen.Yes);
    private static readonly Observation Stays = Is(PushMoves, Seen.No);
    private static readonly Observation NoHose = Is(BrakeHose, Seen.No);

    /// <summary>One row an architecture, in the order of <see cref="Identification.Architecture"/>.</summary>
    public static IReadOnlyList<EvidenceRow> Rows { get; } =
    [
        new(CableScrew, [Lever], [Button, Puller, Motor, Cable, PlateMot, Second, Cup, Opposed, Hex, Moves, NoHose]),
        new(PullerScrew, [Lever], [Hand, Foot, Motor, Cable, PlateMot, Second, Cup, Opposed, Hex, Moves, NoHose]),
        new(LeverPush, [Lever], [Motor, Cable, PlateMot, Second, Opposed, Hex, Stays, NoHose]),
        new(MotorPush, [Motor], [Lever, Hand, Foot, Puller, Cable, PlateMot, Second, Opposed, Hex, Stays, NoHose]),
        new(MotorTurn, [Motor], [Lever, Hand, Foot, Puller, Cable, PlateMot, Second, Opposed, Hex, Cup, Moves, NoHose]),
        new(HatShoes, [Cable, Hole], [Button, Puller, Lever, Motor, PlateMot, Second, Opposed, Hex, NoHose]),
        new(PullerHat, [Cable, Hole], [Hand, Foot, Lever, Motor, PlateMot, Second, Opposed, Hex, NoHose]),
        new(MotorHat, [PlateMot], [Hand, Foot, Lever, Motor, Second, Hex, NoHose]),
        new(FixedHat, [Cable, PlateMot, Hole], [Lever, Motor, Second, Hex, NoHose, Is(OpposedPistons, Seen.No)]),
        new(SpotCaliper, [Second], [Lever, Motor, Cable, PlateMot, Hex, NoHose]),
        new(RearHex, [Hex], [Button, Motor, Cable, PlateMot, Second, Opposed, NoHose]),
        new(Plain, [], [Lever, Motor, Cable, PlateMot, Hole, Second, Hex, NoHose]),
        new(ElectricOnly, [NoHose], []),
    ];

    /// <summary>The row of an architecture.</summary>
    public static EvidenceRow Row(Architecture architecture) => Rows[(int)architecture];
}
