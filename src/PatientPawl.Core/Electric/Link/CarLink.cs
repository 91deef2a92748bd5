using System.Buffers.Binary;

namespace PatientPawl.Core.Electric.Link;

/// <summary>Diagnostic services that are used. ISO 14229-1, from memory.</summary>
public enum Service
{
    /// <summary>Choose a session: 01 default, 03 extended.</summary>
    Session = 0x10,
    /// <summary>Clear the codes.</summary>
    ClearCodes = 0x14,
    /// <summary>Read the codes.</summary>
    ReadCodes = 0x19,
    /// <summary>Read by identifier.</summary>
    Read = 0x22,
    /// <summary>Start, stop, or ask about a routine.</summary>
    Routine = 0x31,
    /// <summary>The tester is still there.</summary>
    TesterPresent = 0x3E,
}

/// <summary>What is read by identifier. The numbers are this project's own; no maker's are known or used.</summary>
public enum Identifier
{
    /// <summary>Vehicle identification number, 17 letters. ISO 14229-1, from memory.</summary>
    Vin = 0xF190,
    /// <summary>Everything at once, see <see cref="LiveState"/>.</summary>
    Live = 0xD105,
    /// <summary>The first second of the kept samples; the next ones follow, one a second.</summary>
    FirstSamples = 0xD200,
}

/// <summary>What the unit says of itself in one answer.</summary>
/// <param name="Motors">Motors that it has: 2, or 1 that pulls both cables.</param>
/// <param name="State">The brake.</param>
/// <param name="Last">The last routine; null before the first.</param>
/// <param name="Status">How it stands.</param>
/// <param name="Left">How the left side, or the only motor, ended.</param>
/// <param name="Right">How the right side ended.</param>
/// <param name="Ignition">True with the ignition on.</param>
/// <param name="MilliVolts">Voltage at the battery.</param>
/// <param name="LeftHundredthsMm">Left spindle from its back stop, hundredths of a millimetre.</param>
/// <param name="RightHundredthsMm">Right spindle.</param>
/// <param name="LeftCentiAmps">Left current, hundredths of an ampere; positive applies.</param>
/// <param name="RightCentiAmps">Right current.</param>
/// <param name="Samples">Samples kept of the last actuation, 500 a second.</param>
public sealed record LiveState(
    int Motors,
    UnitState State,
    Routine? Last,
    RoutineStatus Status,
    SideEnd Left,
    SideEnd Right,
    bool Ignition,
    int MilliVolts,
    int LeftHundredthsMm,
    int RightHundredthsMm,
    int LeftCentiAmps,
    int RightCentiAmps,
    int Samples)
{
    private const int Bytes = 19;

    /// <summary>As it goes over the link.</summary>
    public byte[] ToBytes()
    {
        var b = new byte[Bytes];
        (b[0], b[1], b[4], b[5], b[6], b[7]) = ((byte)Motors, (byte)State, (byte)Status, (byte)Left, (byte)Right, (byte)(Ignition ? 1 : 0));
        BinaryPrimitives.WriteUInt16BigEndian(b.AsSpan(2), (ushort)(Last is { } l ? (int)l : 0));
        BinaryPrimitives.WriteUInt16BigEndian(b.AsSpan(8), (ushort)Math.Clamp(MilliVolts, 0, ushort.MaxValue));
        var at = 10;
        foreach (var v in new[] { LeftHundredthsMm, RightHundredthsMm, LeftCentiAmps, RightCentiAmps })
        {
            BinaryPrimitives.WriteInt16BigEndian(b.AsSpan(at), (short)Math.Clamp(v, short.MinValue, short.MaxValue));
            at += 2;
        }

        b[18] = (byte)Math.Min(byte.MaxValue, (Samples + CarLink.SamplesPerBlock - 1) / CarLink.SamplesPerBlock);
        return b;
    }

    /// <summary>From the bytes of an answer; null where they are no such answer. Its samples are counted in whole blocks.</summary>
    public static LiveState? From(ReadOnlySpan<byte> b)
    {
        if (b.Length != Bytes || !Enum.IsDefined((UnitState)b[1]) || !Enum.IsDefined((RoutineStatus)b[4]) || !Enum.IsDefined((SideEnd)b[5]) || !Enum.IsDefined((SideEnd)b[6])) return null;
        var last = (Routine)BinaryPrimitives.ReadUInt16BigEndian(b[2..]);
        return new(b[0], (UnitState)b[1], Enum.IsDefined(last) ? last : null, (RoutineStatus)b[4], (SideEnd)b[5], (SideEnd)b[6], b[7] == 1, BinaryPrimitives.ReadUInt16BigEndian(b[8..]),
            BinaryPrimitives.ReadInt16BigEndian(b[10..]), BinaryPrimitives.ReadInt16BigEndian(b[12..]), BinaryPrimitives.ReadInt16BigEndian(b[14..]), BinaryPrimitives.ReadInt16BigEndian(b[16..]),
            b[18] * CarLink.SamplesPerBlock);
    }
}

/// <summary>What both ends of the link have to agree on beside the standards. Described in docs/car-link.md.</summary>
public static class CarLink
{
    /// <summary>Samples a second that the unit keeps.</summary>
    public const int SamplesPerSecond = 500;

    /// <summary>Samples in one block.</summary>
    public const int SamplesPerBlock = 500;

    /// <summary>A negative answer begins with this.</summary>
    public const byte Negative = 0x7F;

    /// <summary>Added to a service it makes its positive answer.</summary>
    public const byte Positive = 0x40;

    /// <summary>Response pending: the answer comes later.</summary>
    public const byte Pending = 0x78;

    /// <summary>Refused with no reason given.</summary>
    public const byte NoReason = 0x10;

    /// <summary>Refused: conditions not correct.</summary>
    public const byte ConditionsNotCorrect = 0x22;

    /// <summary>A trouble code as it is read out: a letter and four figures, as SAE J2012 writes them (from memory).</summary>
    public static string Letters(int number) => $"{"PCBU"[(number >> 14) & 3]}{(number >> 12) & 3}{number & 0xFFF:X3}";

    /// <summary>Why a service was refused, in words. ISO 14229-1, from memory.</summary>
    public static string Refused(int code) => code switch
    {
        0x10 => "refused, no reason given",
        0x11 => "it does not know that service",
        0x12 => "it does not know that function",
        0x13 => "the message was too long or too short",
        0x21 => "it is busy with another",
        0x22 => "conditions not correct: ignition off, or the brake is not where this starts from",
        0x24 => "there is nothing to stop or to ask about: it was never started",
        0x26 => "a failure prevents it: read the codes",
        0x31 => "it does not know that identifier",
        0x7E or 0x7F => "not in this session",
        0x88 => "the car moves",
        0x92 => "the voltage is too high",
        0x93 => "the voltage is too low: charger on",
        _ => $"refused with {code:X2}",
    };
}
