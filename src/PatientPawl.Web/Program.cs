using PatientPawl.Web.Hosting;

var options = StartOptions.Read(args, Console.Error);
if (options is null) return 2;
if (options.IsMaintenance) return Maintenance.Run(options, Console.Out, Console.Error, TimeProvider.System);
var app = PawlApp.Build(options, args);
return await PawlApp.RunAsync(app, options, Console.Out, Console.Error);
