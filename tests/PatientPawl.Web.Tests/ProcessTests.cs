using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;

namespace PatientPawl.Web.Tests;

/// <summary>The server as a process: its first question after a restart, started on a port in use, started with what it does not know.</summary>
public class ProcessTests
{
    [Theory]
    [InlineData("/api/sources")]
    [InlineData("/api/workshop/house-rules")]
    [InlineData("/api/board")]
    [InlineData("/api/jobs/JOB")]
    [InlineData("/api/catalogue")]
    public async Task After_a_restart_any_of_the_planners_questions_may_be_the_first(string first)
    {
        // Data of an earlier run, so that nothing is driven through the rules before the question is asked.
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.JobInBay(6);
        var folder = Directory.CreateTempSubdirectory("pawl").FullName;
        foreach (var file in Directory.GetFiles(shop.Folder).Where(f => !f.EndsWith(".lock", StringComparison.Ordinal))) File.Copy(file, Path.Combine(folder, Path.GetFileName(file)));
        var port = ServerProcess.FreePort();
        using var server = ServerProcess.Run("--port", port.ToString(), "--data", folder);
        try
        {
            using var client = await ServerProcess.Ready(port);
            await shop.SignIn(client: client);
            (await client.GetAsync(first.Replace("JOB", id))).StatusCode.ShouldBe(HttpStatusCode.OK);
            (await client.GetAsync($"/api/jobs/{id}/overnight")).StatusCode.ShouldBe(HttpStatusCode.OK);
        }
        finally
        {
            server.Kill(entireProcessTree: true);
        }
    }

    [Fact]
    public async Task A_port_in_use_is_one_clear_line_and_a_bad_exit_code()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        var port = ((IPEndPoint)listener.LocalEndpoint).Port;
        using var server = ServerProcess.Run("--port", port.ToString(), "--no-demo", "--data", Directory.CreateTempSubdirectory("pawl").FullName);
        var said = await server.StandardError.ReadToEndAsync();
        await server.WaitForExitAsync();
        server.ExitCode.ShouldNotBe(0);
        said.Trim().Split('\n').Last().ShouldBe($"patient-pawl: port {port} is in use. Choose another with --port.");
    }

    [Fact]
    public async Task An_option_it_does_not_know_is_one_clear_line()
    {
        using var server = ServerProcess.Run("--prot", "1");
        (await server.StandardError.ReadToEndAsync()).Trim().ShouldBe("patient-pawl: '--prot' is not understood. Use --port 1..65535, --data DIR, --no-demo, --listen ADDRESS, --certificate FILE, --behind-proxy ADDRESS, --car HOST:PORT, --car-speed 0.1..100, --verify, --backup FILE, --restore FILE.");
        await server.WaitForExitAsync();
        server.ExitCode.ShouldBe(2);
    }

    [Fact]
    public async Task Demo_data_goes_only_into_a_workshop_with_nobody_and_nothing_in_it()
    {
        var folder = Directory.CreateTempSubdirectory("pawl").FullName;
        await using (var own = await Workshop.Open(demo: false, folder))
        {
            (await own.Client.PostAsJsonAsync("/api/workshop/first-lead", new { workshop = "Own", name = "Una Pike", pin = "4711" })).EnsureSuccessStatusCode();
            var options = new Hosting.StartOptions(0, folder, true);
            Hosting.PawlApp.Prepare(own.Services, options);
            (await own.Client.GetStringAsync("/api/board")).ShouldBe("[]");
            (await own.Client.GetStringAsync("/api/session")).ShouldNotContain("Gannet");
        }
    }
}
