using Formatum.Storage;
using Formatum.Web;
using Formatum.Web.Hosting;

const int Refused = 2;
try
{
    var chosen = CommandLine.Read(args);
    if (chosen.ContainsKey("help"))
    {
        Console.Write(CommandLine.Help);
        return 0;
    }
    await Server.RunAsync(ServerOptions.From(chosen));
    return 0;
}
catch (Exception e) when (e is ArgumentException or StartRefused)
{
    Console.Error.WriteLine(e.Message);
    return Refused;
}
