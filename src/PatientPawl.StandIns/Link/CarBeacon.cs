using System.Buffers.Binary;
using System.Net;
using System.Net.Sockets;
using System.Text;
using PatientPawl.Core.Electric.Link;

namespace PatientPawl.StandIns.Link;

/// <summary>What the stand-in car says over UDP: that it is there, how many may speak with it, whether it is ready. On loopback only.</summary>
internal sealed class CarBeacon(int port, CarServer server, TimeProvider clock) : IDisposable
{
    private const int AnnouncedOn = 13400, Announcements = 3;
    private static readonly TimeSpan Between = TimeSpan.FromMilliseconds(500);

    // The broadcast address of loopback: nobody outside of this machine hears it.
    private static readonly IPAddress Everybody = IPAddress.Parse("127.255.255.255");

    private static ReadOnlySpan<byte> Eid => [0x02, 0x50, 0x41, 0x57, 0x4C, 0x01];

    private readonly UdpClient _udp = new(new IPEndPoint(IPAddress.Loopback, port));

    /// <summary>Answers until it is stopped.</summary>
    public async Task Answer(CancellationToken stop)
    {
        while (!stop.IsCancellationRequested)
        {
            try
            {
                var got = await _udp.ReceiveAsync(stop);
                if (Answer(got.Buffer) is { } answer) await _udp.SendAsync(answer, got.RemoteEndPoint, stop);
            }
            catch (Exception e) when (e is OperationCanceledException or SocketException or ObjectDisposedException)
            {
                if (stop.IsCancellationRequested) return;
            }
        }
    }

    /// <summary>Says three times that it is there.</summary>
    public async Task Announce(CancellationToken stop)
    {
        try
        {
            using var sender = new UdpClient(new IPEndPoint(IPAddress.Loopback, 0)) { EnableBroadcast = true };
            for (var k = 0; k < Announcements; k++)
            {
                await sender.SendAsync(Here(), new IPEndPoint(Everybody, AnnouncedOn), stop);
                await Task.Delay(Between, clock, stop);
            }
        }
        catch (Exception e) when (e is SocketException or OperationCanceledException)
        {
            // A machine whose loopback has no broadcast: it is found by its port all the same.
        }
    }

    private byte[]? Answer(ReadOnlySpan<byte> datagram)
    {
        if (datagram.Length < Doip.HeaderBytes) return null;
        var payload = datagram[Doip.HeaderBytes..];
        var fault = Doip.Header(datagram[..Doip.HeaderBytes], out var type, out var length) ?? (length == payload.Length ? null : HeaderFault.Length);
        if (fault is { } why) return Doip.Frame(DoipType.HeaderNotUnderstood, [(byte)why]);
        return type switch
        {
            DoipType.IdentificationRequest => Here(),
            DoipType.IdentificationByEid => payload.SequenceEqual(Eid) ? Here() : null,
            DoipType.IdentificationByVin => payload.SequenceEqual(Encoding.ASCII.GetBytes(Diagnosis.Vin)) ? Here() : null,
            // A gateway, so many sockets, so many of them open.
            DoipType.EntityStatus => Doip.Frame(DoipType.EntityStatusAnswer, [0x00, CarServer.MostSockets, (byte)Math.Min(CarServer.MostSockets, server.Connections)]),
            DoipType.PowerMode => Doip.Frame(DoipType.PowerModeAnswer, [(byte)(server.With(c => c.Ignition) ? 0x01 : 0x00)]),
            _ => null,
        };
    }

    /// <summary>VIN 17, logical address 2, EID 6, GID 6, no further action, in step.</summary>
    private static byte[] Here()
    {
        var b = new byte[33];
        Encoding.ASCII.GetBytes(Diagnosis.Vin, b);
        BinaryPrimitives.WriteUInt16BigEndian(b.AsSpan(17), Doip.UnitAddress);
        Eid.CopyTo(b.AsSpan(19));
        Eid.CopyTo(b.AsSpan(25));
        return Doip.Frame(DoipType.Announcement, b);
    }

    public void Dispose() => _udp.Dispose();
}
