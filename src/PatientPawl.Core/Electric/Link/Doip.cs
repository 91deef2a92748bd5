using System.Buffers.Binary;

namespace PatientPawl.Core.Electric.Link;

/// <summary>What a DoIP message is. ISO 13400-2, from memory.</summary>
public enum DoipType
{
    /// <summary>A header was not understood: one byte says why.</summary>
    HeaderNotUnderstood = 0x0000,
    /// <summary>Who is there? UDP.</summary>
    IdentificationRequest = 0x0001,
    /// <summary>Is this entity there? UDP, six bytes.</summary>
    IdentificationByEid = 0x0002,
    /// <summary>Is this vehicle there? UDP, seventeen bytes.</summary>
    IdentificationByVin = 0x0003,
    /// <summary>Here I am. UDP.</summary>
    Announcement = 0x0004,
    /// <summary>A tester wants to speak.</summary>
    RoutingActivation = 0x0005,
    /// <summary>It may, or why not.</summary>
    RoutingActivationAnswer = 0x0006,
    /// <summary>Are you still there? Comes from the car.</summary>
    AliveCheck = 0x0007,
    /// <summary>Yes.</summary>
    AliveCheckAnswer = 0x0008,
    /// <summary>How many sockets? UDP.</summary>
    EntityStatus = 0x4001,
    /// <summary>So many. UDP.</summary>
    EntityStatusAnswer = 0x4002,
    /// <summary>Is it ready for diagnosis? UDP.</summary>
    PowerMode = 0x4003,
    /// <summary>It is, or not. UDP.</summary>
    PowerModeAnswer = 0x4004,
    /// <summary>A diagnostic message.</summary>
    Message = 0x8001,
    /// <summary>It was taken.</summary>
    MessageTaken = 0x8002,
    /// <summary>It was not taken.</summary>
    MessageRefused = 0x8003,
}

/// <summary>Why a header is not understood. ISO 13400-2, from memory.</summary>
public enum HeaderFault
{
    /// <summary>The version and its inverse do not match: the socket is closed.</summary>
    Pattern = 0x00,
    /// <summary>An unknown type: its length is skipped.</summary>
    Type = 0x01,
    /// <summary>Longer than this side takes: it is skipped.</summary>
    TooLarge = 0x02,
    /// <summary>Out of memory.</summary>
    Memory = 0x03,
    /// <summary>A length that its type does not have: the socket is closed.</summary>
    Length = 0x04,
}

/// <summary>A message with its type.</summary>
/// <param name="Type">What it is.</param>
/// <param name="Payload">Its bytes.</param>
public sealed record DoipMessage(DoipType Type, byte[] Payload);

/// <summary>Frames of ISO 13400-2 (from memory; checked against worked frames): version 02, its inverse, the type, the length, all big endian.</summary>
public static class Doip
{
    /// <summary>The version of ISO 13400-2:2012.</summary>
    public const byte Version = 0x02;

    /// <summary>Bytes before the payload.</summary>
    public const int HeaderBytes = 8;

    /// <summary>The longest payload that either side takes, bytes.</summary>
    public const int LongestPayload = 8192;

    /// <summary>Logical address of the brake's unit.</summary>
    public const ushort UnitAddress = 0x0E51;

    /// <summary>Logical address of the tester.</summary>
    public const ushort TesterAddress = 0x0E80;

    /// <summary>A frame from its type and payload.</summary>
    public static byte[] Frame(DoipType type, ReadOnlySpan<byte> payload)
    {
        var frame = new byte[HeaderBytes + payload.Length];
        (frame[0], frame[1]) = (Version, unchecked((byte)~Version));
        BinaryPrimitives.WriteUInt16BigEndian(frame.AsSpan(2), (ushort)type);
        BinaryPrimitives.WriteUInt32BigEndian(frame.AsSpan(4), (uint)payload.Length);
        payload.CopyTo(frame.AsSpan(HeaderBytes));
        return frame;
    }

    /// <summary>A diagnostic message between two addresses.</summary>
    public static byte[] Message(ushort source, ushort target, ReadOnlySpan<byte> data, DoipType type = DoipType.Message)
    {
        var payload = new byte[4 + data.Length];
        BinaryPrimitives.WriteUInt16BigEndian(payload, source);
        BinaryPrimitives.WriteUInt16BigEndian(payload.AsSpan(2), target);
        data.CopyTo(payload.AsSpan(4));
        return Frame(type, payload);
    }

    /// <summary>Reads a header of eight bytes.</summary>
    /// <param name="header">The eight bytes.</param>
    /// <param name="type">The type as it stands there.</param>
    /// <param name="length">The length that is said.</param>
    /// <returns>Why it is not understood; null when it is.</returns>
    public static HeaderFault? Header(ReadOnlySpan<byte> header, out DoipType type, out uint length)
    {
        type = (DoipType)BinaryPrimitives.ReadUInt16BigEndian(header[2..]);
        length = BinaryPrimitives.ReadUInt32BigEndian(header[4..]);
        // A tester that does not know yet whom it asks may say version FF with its inverse 00.
        if (header[0] != unchecked((byte)~header[1]) || (header[0] != Version && !(header[0] == 0xFF && type is DoipType.IdentificationRequest or DoipType.IdentificationByEid or DoipType.IdentificationByVin)))
            return HeaderFault.Pattern;
        if (!Enum.IsDefined(type)) return HeaderFault.Type;
        if (length > LongestPayload) return HeaderFault.TooLarge;
        return Fits(type, length) ? null : HeaderFault.Length;
    }

    private static bool Fits(DoipType type, uint length) => type switch
    {
        DoipType.HeaderNotUnderstood => length == 1,
        DoipType.IdentificationRequest or DoipType.AliveCheck or DoipType.EntityStatus or DoipType.PowerMode => length == 0,
        DoipType.IdentificationByEid => length == 6,
        DoipType.IdentificationByVin => length == 17,
        DoipType.Announcement => length is 32 or 33,
        DoipType.RoutingActivation => length is 7 or 11,
        DoipType.RoutingActivationAnswer => length is 9 or 13,
        DoipType.AliveCheckAnswer => length == 2,
        DoipType.EntityStatusAnswer => length is 3 or 7,
        DoipType.PowerModeAnswer => length == 1,
        DoipType.MessageTaken or DoipType.MessageRefused => length >= 5,
        _ => length >= 5,
    };
}
