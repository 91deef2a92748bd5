using System.Buffers.Binary;
using System.Net;
using System.Net.Sockets;
using PatientPawl.Core.Electric.Link;
using PatientPawl.StandIns.Car;

namespace PatientPawl.StandIns.Link;

/// <summary>How the stand-in car is reached.</summary>
/// <param name="Port">Port on loopback, TCP and UDP; 0 takes a free one.</param>
/// <param name="Speed">How much faster than real its time goes, 0.1 to 100.</param>
/// <param name="Announce">True announces itself on loopback at the start.</param>
public sealed record CarServerOptions(int Port = 0, double Speed = 1, bool Announce = true);

/// <summary>
/// The stand-in car on a loopback socket: a DoIP entity of ISO 13400-2 (from memory). Every connection has its own talk; all of them share the one
/// car, under one lock. Nothing a connection sends can stop another, or the car.
/// </summary>
public sealed class CarServer : IAsyncDisposable
{
    /// <summary>Testers that may speak at once.</summary>
    internal const int MostSockets = 4;

    private static readonly TimeSpan Tick = TimeSpan.FromMilliseconds(10), FirstWord = TimeSpan.FromSeconds(2), Idle = TimeSpan.FromMinutes(5), AliveWait = TimeSpan.FromSeconds(1),
        Takes = TimeSpan.FromMilliseconds(120), IntoMotion = TimeSpan.FromMilliseconds(600);

    private readonly CarServerOptions _options;
    private readonly TimeProvider _clock;
    private readonly CancellationTokenSource _stop = new();
    private readonly List<Tester> _testers = [];
    private readonly Lock _lock = new();
    private readonly List<Task> _running = [];
    private TcpListener _tcp = null!;
    private CarBeacon _beacon = null!;
    private DateTimeOffset? _cutAt, _deafUntil;

    /// <summary>A server that has not begun to listen.</summary>
    public CarServer(StandInCar car, CarServerOptions options, TimeProvider clock)
    {
        ArgumentNullException.ThrowIfNull(options);
        (Car, _options, _clock) = (car, options, clock);
    }

    /// <summary>The car, under <see cref="With"/>.</summary>
    private StandInCar Car { get; set; }

    /// <summary>The port it listens on.</summary>
    public int Port { get; private set; }

    /// <summary>Does something with the car while nobody else does.</summary>
    public T With<T>(Func<StandInCar, T> what)
    {
        ArgumentNullException.ThrowIfNull(what);
        lock (_lock) return what(Car);
    }

    /// <summary>Puts another car in its place, as if a tester were plugged over.</summary>
    public void Replace(StandInCar car)
    {
        lock (_lock) Car = car;
    }

    /// <summary>Open connections.</summary>
    public int Connections
    {
        get { lock (_lock) return _testers.Count; }
    }

    /// <summary>Begins to listen. A port that is in use is not taken over: another is.</summary>
    public void Start()
    {
        try
        {
            Listen(_options.Port);
        }
        catch (SocketException) when (_options.Port != 0)
        {
            Listen(0);
        }

        _running.Add(Task.Run(TimeGoesOn));
        _running.Add(Task.Run(Accept));
        _running.Add(Task.Run(() => _beacon.Answer(_stop.Token)));
        if (_options.Announce) _running.Add(Task.Run(() => _beacon.Announce(_stop.Token)));
    }

    private void Listen(int port)
    {
        var tcp = new TcpListener(IPAddress.Loopback, port);
        tcp.Start();
        try
        {
            Port = ((IPEndPoint)tcp.LocalEndpoint).Port;
            _beacon = new(Port, this, _clock);
        }
        catch (SocketException)
        {
            tcp.Dispose();
            throw;
        }

        _tcp = tcp;
    }

    private async Task TimeGoesOn()
    {
        using var timer = new PeriodicTimer(Tick, _clock);
        var before = _clock.GetTimestamp();
        while (await Waits(timer))
        {
            var now = _clock.GetTimestamp();
            lock (_lock) Car.Advance(_clock.GetElapsedTime(before, now) * _options.Speed);
            before = now;
            if (_cutAt is { } cut && _clock.GetUtcNow() >= cut) CutTheLink();
        }
    }

    private async Task<bool> Waits(PeriodicTimer timer)
    {
        try
        {
            return await timer.WaitForNextTickAsync(_stop.Token);
        }
        catch (OperationCanceledException)
        {
            return false;
        }
    }

    /// <summary>The link goes dead in the middle of a routine, and comes back a little later. The car goes on.</summary>
    private void CutTheLink()
    {
        (_cutAt, _deafUntil) = (null, _clock.GetUtcNow() + TimeSpan.FromSeconds(1));
        lock (_lock)
        {
            Car.Set(CarFault.LinkLost, false);
            foreach (var tester in _testers) tester.Client.Close();
        }
    }

    private async Task Accept()
    {
        while (!_stop.IsCancellationRequested)
        {
            TcpClient client;
            try
            {
                client = await _tcp.AcceptTcpClientAsync(_stop.Token);
            }
            catch (Exception e) when (e is OperationCanceledException or SocketException or ObjectDisposedException)
            {
                if (_stop.IsCancellationRequested) return;
                continue;
            }

            if (_deafUntil is { } until && _clock.GetUtcNow() < until)
            {
                client.Dispose();
                continue;
            }

            Tester tester;
            lock (_lock)
            {
                // A flood of connections that say nothing is turned away, not kept waiting.
                if (_testers.Count >= 4 * MostSockets)
                {
                    client.Dispose();
                    continue;
                }

                tester = new(client, new(() => Car));
                _testers.Add(tester);
            }

            _ = Task.Run(() => Serve(tester));
        }
    }

    private async Task Serve(Tester tester)
    {
        try
        {
            using var client = tester.Client;
            client.NoDelay = true;
            var stream = client.GetStream();
            while (!_stop.IsCancellationRequested && await ReadFrame(stream, tester) is { } frame)
                if (!await Handle(stream, tester, frame)) return;
        }
        catch (Exception e) when (e is IOException or SocketException or OperationCanceledException or ObjectDisposedException)
        {
            // The other side has gone. What it had begun in the car goes on; only its talk is over.
        }
        finally
        {
            lock (_lock) _testers.Remove(tester);
        }
    }

    /// <summary>The next frame that is understood; null ends the connection.</summary>
    private async Task<DoipMessage?> ReadFrame(NetworkStream stream, Tester tester)
    {
        var header = new byte[Doip.HeaderBytes];
        while (true)
        {
            // Half a header waits two seconds; between frames an activated tester may be silent for five minutes.
            if (!await Fill(stream, header.AsMemory(0, 1), tester.Source is null ? FirstWord : Idle) || !await Fill(stream, header.AsMemory(1), FirstWord)) return null;
            var fault = Doip.Header(header, out var type, out var length);
            if (fault is null)
            {
                var payload = new byte[length];
                return await Fill(stream, payload, FirstWord) ? new(type, payload) : null;
            }

            await stream.WriteAsync(Doip.Frame(DoipType.HeaderNotUnderstood, [(byte)fault.Value]), _stop.Token);
            if (fault is HeaderFault.Pattern or HeaderFault.Length || !await Skip(stream, length)) return null;
        }
    }

    private async Task<bool> Fill(NetworkStream stream, Memory<byte> into, TimeSpan within)
    {
        if (into.Length == 0) return true;
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(_stop.Token);
        limit.CancelAfter(within);
        try
        {
            await stream.ReadExactlyAsync(into, limit.Token);
            return true;
        }
        catch (Exception e) when (e is OperationCanceledException or EndOfStreamException)
        {
            return false;
        }
    }

    private async Task<bool> Skip(NetworkStream stream, uint length)
    {
        var waste = new byte[4096];
        for (var left = length; left > 0;)
        {
            var n = (int)Math.Min(left, (uint)waste.Length);
            if (!await Fill(stream, waste.AsMemory(0, n), FirstWord)) return false;
            left -= (uint)n;
        }

        return true;
    }

    /// <summary>Answers one frame; false closes the socket.</summary>
    private async Task<bool> Handle(NetworkStream stream, Tester tester, DoipMessage frame)
    {
        async Task Send(byte[] bytes)
        {
            await tester.Writing.WaitAsync(_stop.Token);
            try
            {
                await stream.WriteAsync(bytes, _stop.Token);
            }
            finally
            {
                tester.Writing.Release();
            }
        }

        switch (frame.Type)
        {
            case DoipType.RoutingActivation:
                var source = BinaryPrimitives.ReadUInt16BigEndian(frame.Payload);
                var code = await Activate(tester, source, frame.Payload[2]);
                var answer = new byte[9];
                BinaryPrimitives.WriteUInt16BigEndian(answer, source);
                BinaryPrimitives.WriteUInt16BigEndian(answer.AsSpan(2), Doip.UnitAddress);
                answer[4] = code;
                await Send(Doip.Frame(DoipType.RoutingActivationAnswer, answer));
                return code == 0x10;
            case DoipType.AliveCheckAnswer:
                tester.Alive = true;
                return true;
            case DoipType.Message:
                return await Talk(tester, frame.Payload, Send);
            default:
                // What only comes over UDP, or only from the car, is no message here.
                await Send(Doip.Frame(DoipType.HeaderNotUnderstood, [(byte)HeaderFault.Type]));
                return true;
        }
    }

    /// <summary>10 done, 00 unknown source, 01 all sockets taken, 02 another source here, 03 active elsewhere, 06 type not supported.</summary>
    private async Task<byte> Activate(Tester tester, ushort source, byte type)
    {
        if (source is < 0x0E00 or > 0x0EFF) return 0x00;
        if (type != 0x00) return 0x06;
        Tester? elsewhere;
        lock (_lock)
        {
            if (tester.Source is { } own && own != source) return 0x02;
            if (_testers.Count(t => t.Source is not null && t != tester) >= MostSockets) return 0x01;
            elsewhere = _testers.Find(t => t.Source == source && t != tester);
            if (elsewhere is null) tester.Source = source;
            else elsewhere.Alive = false;
        }

        if (elsewhere is null) return 0x10;
        // The one that holds the address is asked whether it is still there; a dead socket gives it up.
        try
        {
            await elsewhere.Client.GetStream().WriteAsync(Doip.Frame(DoipType.AliveCheck, []), _stop.Token);
            await Task.Delay(AliveWait, _clock, _stop.Token);
        }
        catch (Exception e) when (e is IOException or InvalidOperationException)
        {
            // It has gone already.
        }

        lock (_lock)
        {
            if (elsewhere.Alive) return 0x03;
            elsewhere.Client.Close();
            elsewhere.Source = null;
            tester.Source = source;
            return 0x10;
        }
    }

    private async Task<bool> Talk(Tester tester, byte[] payload, Func<byte[], Task> send)
    {
        ushort source = BinaryPrimitives.ReadUInt16BigEndian(payload), target = BinaryPrimitives.ReadUInt16BigEndian(payload.AsSpan(2));
        var data = payload.AsMemory(4);
        if (tester.Source != source)
        {
            await send(Doip.Message(Doip.UnitAddress, source, [0x02], DoipType.MessageRefused));
            return false;
        }

        if (target != Doip.UnitAddress)
        {
            await send(Doip.Message(target, source, [0x03], DoipType.MessageRefused));
            return true;
        }

        if (data.Length > 4095)
        {
            await send(Doip.Message(target, source, [0x04], DoipType.MessageRefused));
            return true;
        }

        await send(Doip.Message(Doip.UnitAddress, source, [0x00], DoipType.MessageTaken));
        if (Diagnosis.TakesLonger(data.Span))
        {
            await send(Doip.Message(Doip.UnitAddress, source, [CarLink.Negative, data.Span[0], CarLink.Pending]));
            await Task.Delay(Takes, _clock, _stop.Token);
        }

        byte[]? answer;
        lock (_lock)
        {
            answer = tester.Talk.Answer(data.Span, _clock.GetUtcNow());
            // A link that is to be lost is lost a moment into the next motion.
            if (_cutAt is null && Car.Unit.Runs && Car.Faults.Contains(CarFault.LinkLost)) _cutAt = _clock.GetUtcNow() + IntoMotion / _options.Speed;
        }

        if (answer is not null) await send(Doip.Message(Doip.UnitAddress, source, answer));
        return true;
    }

    /// <summary>Stops listening and closes every connection.</summary>
    public async ValueTask DisposeAsync()
    {
        await _stop.CancelAsync();
        _tcp?.Dispose();
        _beacon?.Dispose();
        lock (_lock) foreach (var tester in _testers) tester.Client.Close();
        await Task.WhenAll(_running);
        _stop.Dispose();
    }

    private sealed class Tester(TcpClient client, Diagnosis talk)
    {
        public TcpClient Client { get; } = client;
        public Diagnosis Talk { get; } = talk;
        public SemaphoreSlim Writing { get; } = new(1, 1);
        public ushort? Source { get; set; }
        public bool Alive { get; set; }
    }
}
