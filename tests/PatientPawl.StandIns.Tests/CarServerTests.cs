using System.Net;
using System.Net.Sockets;
using System.Text;
using PatientPawl.Core.Electric.Link;
using PatientPawl.StandIns.Car;
using PatientPawl.StandIns.Link;

namespace PatientPawl.StandIns.Tests;

/// <summary>
/// The stand-in car on its socket, byte for byte. Frames after ISO 13400-2 and services after ISO 14229-1, both from memory; the vectors were
/// written by hand and agree with what a general-purpose packet library makes of the same fields.
/// </summary>
public sealed class CarServerTests : IAsyncLifetime
{
    private readonly StandInCar _car = new();
    private readonly CarServer _server;

    public CarServerTests() => _server = new(_car, new(Speed: 20, Announce: false), TimeProvider.System);

    public Task InitializeAsync()
    {
        _server.Start();
        return Task.CompletedTask;
    }

    public async Task DisposeAsync() => await _server.DisposeAsync();

    private async Task<Socket> Connect()
    {
        var socket = new Socket(AddressFamily.InterNetwork, SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        await socket.ConnectAsync(IPAddress.Loopback, _server.Port);
        return socket;
    }

    private static Task Send(Socket socket, string hex) => socket.SendAsync(Convert.FromHexString(hex.Replace(" ", "", StringComparison.Ordinal)));

    /// <summary>The next frame as hex; empty when the socket was closed.</summary>
    private static async Task<string> Next(Socket socket)
    {
        using var limit = new CancellationTokenSource(TimeSpan.FromSeconds(6));
        async Task<byte[]> Take(int n)
        {
            var b = new byte[n];
            for (var at = 0; at < n;)
            {
                var got = await socket.ReceiveAsync(b.AsMemory(at), limit.Token);
                if (got == 0) return [];
                at += got;
            }

            return b;
        }

        try
        {
            var header = await Take(8);
            return header.Length == 0 ? "" : Convert.ToHexString([.. header, .. await Take((header[6] << 8) | header[7])]);
        }
        catch (SocketException)
        {
            return "";
        }
    }

    private async Task<Socket> Activated() => (await Activated(mayBeTurnedAway: false))!;

    private async Task<Socket?> Activated(bool mayBeTurnedAway)
    {
        var socket = await Connect();
        try
        {
            await Send(socket, "02FD 0005 00000007 0E80 00 00000000");
        }
        catch (SocketException) when (mayBeTurnedAway)
        {
            socket.Dispose();
            return null;
        }

        var answer = await Next(socket);
        if (mayBeTurnedAway && answer.Length == 0)
        {
            socket.Dispose();
            return null;
        }

        answer.ShouldBe("02FD0006000000090E800E511000000000");
        return socket;
    }

    private static async Task<string> Ask(Socket socket, string uds)
    {
        var length = uds.Replace(" ", "", StringComparison.Ordinal).Length / 2 + 4;
        await Send(socket, $"02FD 8001 {length:X8} 0E80 0E51 {uds}");
        (await Next(socket)).ShouldBe("02FD8002000000050E510E8000");
        return (await Next(socket))[24..];
    }

    [Fact]
    public async Task Identification_entity_status_and_power_mode_are_answered_over_udp()
    {
        using var udp = new UdpClient();
        udp.Connect(IPAddress.Loopback, _server.Port);
        async Task<string> Of(string hex)
        {
            await udp.SendAsync(Convert.FromHexString(hex));
            using var limit = new CancellationTokenSource(5000);
            return Convert.ToHexString((await udp.ReceiveAsync(limit.Token)).Buffer);
        }

        var here = "02FD000400000021" + Convert.ToHexString(Encoding.ASCII.GetBytes(Diagnosis.Vin)) + "0E51" + "025041574C01" + "025041574C01" + "00" + "00";
        (await Of("02FD000100000000")).ShouldBe(here);
        (await Of("FF00000100000000")).ShouldBe(here, "A tester that does not know yet whom it asks.");
        (await Of("02FD000200000006025041574C01")).ShouldBe(here);
        (await Of("02FD000300000011" + Convert.ToHexString(Encoding.ASCII.GetBytes(Diagnosis.Vin)))).ShouldBe(here);
        (await Of("02FD400100000000")).ShouldBe("02FD400200000003000400");
        (await Of("02FD400300000000")).ShouldBe("02FD40040000000101");
        (await Of("02FC000100000000")).ShouldBe("02FD00000000000100");
    }

    [Fact]
    public async Task Routing_is_activated_or_refused_with_its_code_and_a_refusal_closes_the_socket()
    {
        using var good = await Activated();
        foreach (var (ask, code) in new[] { ("1234 00", "00"), ("0E81 E0", "06") })
        {
            using var bad = await Connect();
            await Send(bad, $"02FD 0005 00000007 {ask} 00000000");
            (await Next(bad)).Substring(24, 2).ShouldBe(code);
            (await Next(bad)).ShouldBe("");
        }

        await Send(good, "02FD 0005 00000007 0E82 00 00000000");
        (await Next(good)).Substring(24, 2).ShouldBe("02");
    }

    [Fact]
    public async Task A_source_that_is_active_elsewhere_is_refused_while_the_other_answers_and_taken_when_it_does_not()
    {
        using var first = await Activated();
        using var second = await Connect();
        await Send(second, "02FD 0005 00000007 0E80 00 00000000");
        (await Next(first)).ShouldBe("02FD000700000000");
        await Send(first, "02FD 0008 00000002 0E80");
        (await Next(second)).Substring(24, 2).ShouldBe("03");

        using var third = await Connect();
        await Send(third, "02FD 0005 00000007 0E80 00 00000000");
        (await Next(first)).ShouldBe("02FD000700000000");
        (await Next(third)).Substring(24, 2).ShouldBe("10");
        (await Next(first)).ShouldBe("", "A dead one gives its place up.");
    }

    [Fact]
    public async Task Headers_that_are_not_understood_are_told_and_close_or_keep_the_socket()
    {
        async Task<bool> StaysOpen(string frame, string fault)
        {
            using var socket = await Connect();
            await Send(socket, frame);
            (await Next(socket)).ShouldBe($"02FD000000000001{fault}");
            await Send(socket, "02FD 0005 00000007 0E83 00 00000000");
            return (await Next(socket)).EndsWith("0E830E511000000000", StringComparison.Ordinal);
        }

        (await StaysOpen("02FC 0005 00000007", "00")).ShouldBeFalse();
        (await StaysOpen("02FD 0005 00000003", "04")).ShouldBeFalse();
        (await StaysOpen("02FD 7777 00000004 01020304", "01")).ShouldBeTrue();
        (await StaysOpen("02FD 8001 00002328" + new string('0', 2 * 0x2328), "02")).ShouldBeTrue();
        using var early = await Connect();
        await Send(early, "02FD 8001 00000005 0E80 0E51 3E");
        (await Next(early)).ShouldBe("02FD8003000000050E510E8002");
        (await Next(early)).ShouldBe("");
        using var target = await Activated();
        await Send(target, "02FD 8001 00000006 0E80 0999 3E00");
        (await Next(target)).ShouldBe("02FD80030000000509990E8003");
    }

    [Fact]
    public async Task The_services_answer_as_the_standard_writes_them()
    {
        using var socket = await Activated();
        (await Ask(socket, "10 03")).ShouldBe("5003003201F4");
        (await Ask(socket, "3E 00")).ShouldBe("7E00");
        (await Ask(socket, "22 F1 90")).ShouldBe("62F190" + Convert.ToHexString(Encoding.ASCII.GetBytes(Diagnosis.Vin)));
        (await Ask(socket, "19 02 FF")).ShouldBe("590209");
        foreach (var (ask, answer) in new[]
        {
            ("85 01", "7F8511"), ("10 07", "7F1012"), ("10", "7F1013"), ("22 12 34", "7F2231"), ("22 12", "7F2213"), ("31 01 99 99", "7F3131"), ("31 03 02 01", "7F3124"),
            ("31 02 02 01", "7F3124"), ("31 07 02 01", "7F3112"), ("3E 07", "7F3E12"), ("19 07 FF", "7F1912"), ("14 00 00 00", "7F1478"),
        })
            (await Ask(socket, ask)).ShouldBe(answer, ask);
        (await Next(socket))[24..].ShouldBe("7F1431");
        (await Ask(socket, "14 FF FF FF")).ShouldBe("7F1478");
        (await Next(socket))[24..].ShouldBe("54");
        (await Ask(socket, "10 01")).ShouldBe("5001003201F4");
        (await Ask(socket, "31 01 02 01")).ShouldBe("7F317F", "Not in the default session.");
    }

    [Fact]
    public async Task A_routine_answers_at_once_runs_and_is_asked_about()
    {
        using var socket = await Activated();
        await Ask(socket, "10 03");
        (await Ask(socket, "31 01 02 01")).ShouldBe("71010201010101");
        (await Ask(socket, "31 01 02 04")).ShouldBe("7F3121", "Busy.");
        string result;
        do result = await Ask(socket, "31 03 02 01");
        while (result.StartsWith("7103020101", StringComparison.Ordinal)); // Running: one side may be there before the other.
        result.ShouldBe("71030201020404");
        _server.With(c => c.Unit.State).ShouldBe(UnitState.Service);
        LiveState.From(Convert.FromHexString((await Ask(socket, "22 D1 05"))[6..])).ShouldNotBeNull().State.ShouldBe(UnitState.Service);
        (await Ask(socket, "22 D2 00")).ShouldStartWith("62D20001F4");
        (await Ask(socket, "31 01 02 05")).ShouldBe("7F3122", "Not out of service by an apply.");
    }

    [Fact]
    public async Task Random_bytes_and_slow_half_open_and_flooding_clients_crash_nothing_hang_nothing_and_leave_nothing()
    {
        var random = new Random(11);
        var streams = int.Parse(Environment.GetEnvironmentVariable("PAWL_STREAMS") ?? "1500", System.Globalization.CultureInfo.InvariantCulture);
        string[] starts = ["", "02FD", "02FD8001", "02FD000500000007", "02FD80010000000C0E800E51", "02FD0000FFFFFFFF"];
        for (var k = 0; k < streams; k++)
        {
            using var socket = await Connect();
            var noise = new byte[random.Next(0, 60)];
            random.NextBytes(noise);
            try
            {
                await socket.SendAsync((byte[])[.. Convert.FromHexString(starts[random.Next(starts.Length)]), .. noise]);
            }
            catch (SocketException)
            {
                // Turned away: allowed.
            }
        }

        List<Socket> halfOpen = [];
        for (var k = 0; k < Math.Clamp(streams / 25, 60, 1000); k++)
        {
            halfOpen.Add(await Connect());
            if (k % 2 == 0)
            {
                try
                {
                    await Send(halfOpen[^1], "02FD80");
                }
                catch (SocketException)
                {
                    // Turned away.
                }
            }
        }

        // Two seconds of silence end them, whether the server has met them all by now or not; then a tester that speaks is served.
        Socket? served = null;
        for (var wait = 0; wait < 200 && served is null; wait++)
        {
            await Task.Delay(100);
            served = await Activated(mayBeTurnedAway: true);
        }

        using var good = served.ShouldNotBeNull("It was never served.");
        for (var wait = 0; wait < 100 && _server.Connections > 1; wait++) await Task.Delay(100);
        _server.Connections.ShouldBe(1);
        foreach (var socket in halfOpen) socket.Dispose();
        (await Ask(good, "3E 00")).ShouldBe("7E00");
        _server.With(c => c.Unit.State).ShouldBe(UnitState.Released, "Nothing of it moved the brake.");
    }
}
