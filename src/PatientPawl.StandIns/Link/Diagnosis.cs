using System.Buffers.Binary;
using System.Text;
using PatientPawl.Core.Electric.Link;
using PatientPawl.StandIns.Car;

namespace PatientPawl.StandIns.Link;

/// <summary>One tester's talk with the unit: its session, and the answers of ISO 14229-1 (from memory). Not safe for two threads at once.</summary>
/// <param name="of">The car that stands there now; the caller holds its lock.</param>
public sealed class Diagnosis(Func<StandInCar> of)
{
    /// <summary>A vehicle identification number of nobody's: its first three letters belong to no maker that is known here.</summary>
    public const string Vin = "ZZZPAWLSTAND1N001";

    private const byte Default = 0x01, Extended = 0x03;
    private static readonly TimeSpan FallsBackAfter = TimeSpan.FromSeconds(5);
    private byte _session = Default;
    private DateTimeOffset _heard;

    /// <summary>True for an answer that takes longer than 50 ms: 78 is sent first.</summary>
    public static bool TakesLonger(ReadOnlySpan<byte> request) => request.Length == 4 && request[0] == (byte)Service.ClearCodes;

    /// <summary>The answer; null where none is wanted.</summary>
    public byte[]? Answer(ReadOnlySpan<byte> request, DateTimeOffset now)
    {
        // Nobody present for five seconds: the session falls back. What the brake does goes on, and service stays service.
        if (now - _heard > FallsBackAfter) _session = Default;
        _heard = now;
        return (Service)request[0] switch
        {
            Service.Session => Session(request),
            Service.TesterPresent => Present(request),
            Service.Read => Read(request),
            Service.Routine => Routines(request),
            Service.ReadCodes => Codes(request),
            Service.ClearCodes => Clear(request),
            _ => No(request[0], 0x11),
        };
    }

    private static byte[] No(byte service, byte why) => [CarLink.Negative, service, why];

    private byte[] Session(ReadOnlySpan<byte> r)
    {
        if (r.Length != 2) return No(r[0], 0x13);
        if (r[1] is not (Default or Extended)) return No(r[0], 0x12);
        _session = r[1];
        // P2 50 ms, and P2* 5 s in tens of milliseconds.
        return [0x50, r[1], 0x00, 50, 0x01, 0xF4];
    }

    private static byte[]? Present(ReadOnlySpan<byte> r) => r.Length != 2 ? No(r[0], 0x13) : r[1] switch { 0x00 => [0x7E, 0x00], 0x80 => null, _ => No(r[0], 0x12) };

    private byte[] Read(ReadOnlySpan<byte> r)
    {
        if (r.Length != 3) return No(r[0], 0x13);
        var id = BinaryPrimitives.ReadUInt16BigEndian(r[1..]);
        byte[]? data = (Identifier)id switch
        {
            Identifier.Vin => Encoding.ASCII.GetBytes(Vin),
            Identifier.Live => Live().ToBytes(),
            >= Identifier.FirstSamples and < Identifier.FirstSamples + 60 => Block(id - (int)Identifier.FirstSamples),
            _ => null,
        };
        return data is null ? No(r[0], 0x31) : [0x62, r[1], r[2], .. data];
    }

    private LiveState Live()
    {
        var car = of();
        var (left, right) = (car.Drives[0], car.Drives[^1]);
        var one = car.Drives.Count == 1 || car.Faults.Contains(CarFault.WrongBrake);
        static int Round(double v) => (int)Math.Round(v);
        return new(one ? 1 : 2, car.Unit.State, car.Unit.Last, car.Unit.Status, car.Unit.Ends[0], car.Unit.Ends[^1], car.Ignition, Round(car.Volts * 1000),
            Round(left.Nut * 1e5), Round(right.Nut * 1e5), Round(left.Amps * 100), Round(right.Amps * 100), car.Samples.Count);
    }

    /// <summary>Some samples: how many, then left and right of each in hundredths of an ampere.</summary>
    private byte[]? Block(int block)
    {
        var car = of();
        var from = block * CarLink.SamplesPerBlock;
        if (from >= car.Samples.Count) return null;
        var n = Math.Min(CarLink.SamplesPerBlock, car.Samples.Count - from);
        var b = new byte[2 + 4 * n];
        BinaryPrimitives.WriteUInt16BigEndian(b, (ushort)n);
        for (var k = 0; k < n; k++)
        {
            BinaryPrimitives.WriteInt16BigEndian(b.AsSpan(2 + 4 * k), (short)Math.Round(car.Samples[from + k].Left * 100));
            BinaryPrimitives.WriteInt16BigEndian(b.AsSpan(4 + 4 * k), (short)Math.Round(car.Samples[from + k].Right * 100));
        }

        return b;
    }

    private byte[] Routines(ReadOnlySpan<byte> r)
    {
        if (r.Length != 4) return No(r[0], 0x13);
        if (_session != Extended) return No(r[0], 0x7F);
        var routine = (Routine)BinaryPrimitives.ReadUInt16BigEndian(r[2..]);
        if (!Enum.IsDefined(routine)) return No(r[0], 0x31);
        var (car, unit) = (of(), of().Unit);
        switch (r[1])
        {
            case 0x01:
                if (car.Start(routine) is { } refused) return No(r[0], (byte)refused);
                break;
            case 0x02:
                if (unit.Last != routine || car.Stop() is not null) return No(r[0], (byte)Refusal.Sequence);
                break;
            case 0x03:
                if (unit.Last != routine) return No(r[0], (byte)Refusal.Sequence);
                break;
            default:
                return No(r[0], 0x12);
        }

        return [0x71, r[1], r[2], r[3], (byte)unit.Status, (byte)unit.Ends[0], (byte)unit.Ends[^1]];
    }

    private byte[] Codes(ReadOnlySpan<byte> r)
    {
        if (r.Length != 3) return No(r[0], 0x13);
        if (r[1] != 0x02) return No(r[0], 0x12);
        // Status: 01 test failed, 08 confirmed.
        return [0x59, 0x02, 0x09, .. of().Unit.Stored.Order().SelectMany(c => new byte[] { (byte)(c >> 8), (byte)c, 0x00, 0x09 })];
    }

    private byte[] Clear(ReadOnlySpan<byte> r)
    {
        if (r.Length != 4) return No(r[0], 0x13);
        if (r[1] != 0xFF || r[2] != 0xFF || r[3] != 0xFF) return No(r[0], 0x31);
        of().ClearCodes();
        return [0x54];
    }
}
