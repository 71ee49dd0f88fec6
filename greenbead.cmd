@echo off
rem Green Bead on Windows: the same verbs as the POSIX script beside this file.
setlocal EnableDelayedExpansion
set "HERE=%~dp0"
set "HERE=%HERE:~0,-1%"
set "JDK="
for %%D in ("%GREENBEAD_JDK%" "%JAVA_HOME%") do if not defined JDK call :try "%%~D"
if not defined JDK for /d %%D in ("%ProgramFiles%\Eclipse Adoptium\*" "%ProgramFiles%\Java\*" "%ProgramFiles%\Microsoft\jdk*" "%USERPROFILE%\.jdks\*") do if not defined JDK call :try "%%~D"
if not defined JDK (
  echo greenbead: a JDK 25 or newer is missing; install one ^(for example Temurin 25^) or set GREENBEAD_JDK to its folder. 1>&2
  exit /b 2
)
set "VERB=%~1"
if "%VERB%"=="" set "VERB=--help"
if /i "%VERB%"=="test" (
  call :maven || exit /b 2
  pushd "%HERE%" & call mvn -B -ntp -T 2 verify & set "RC=!ERRORLEVEL!" & popd
  exit /b !RC!
)
call :build || exit /b 2
set "REST="
set "FIRST=1"
for %%A in (%*) do (
  if defined FIRST (set "FIRST=") else (set "REST=!REST! %%A")
)
set "WINDOW="%JDK%\bin\java" -Dgreenbead.home="%HERE%" --enable-native-access=javafx.graphics,ALL-UNNAMED --sun-misc-unsafe-memory-access=allow --module-path "%HERE%\app\target\fx" --add-modules javafx.controls,javafx.swing -cp "%HERE%\app\target\greenbead-app-0.1.0.jar;%HERE%\app\target\lib\*""
if /i "%VERB%"=="demo" ( %WINDOW% org.greenbead.app.Launcher --demo !REST! & exit /b !ERRORLEVEL! )
if /i "%VERB%"=="app" ( %WINDOW% org.greenbead.app.Launcher !REST! & exit /b !ERRORLEVEL! )
if /i "%VERB%"=="shots" (
  "%JDK%\bin\java" -Dgreenbead.home="%HERE%" -Dglass.platform=Headless -Dprism.order=sw --enable-native-access=javafx.graphics,ALL-UNNAMED --sun-misc-unsafe-memory-access=allow --module-path "%HERE%\app\target\fx" --add-modules javafx.controls,javafx.swing -cp "%HERE%\app\target\greenbead-app-0.1.0.jar;%HERE%\app\target\lib\*" org.greenbead.app.Launcher --demo --headless --shots "%HERE%\docs\screenshots"
  exit /b !ERRORLEVEL!
)
if /i "%VERB%"=="jmh" ( "%JDK%\bin\java" -cp "%HERE%\bench\target\greenbead-bench-0.1.0.jar;%HERE%\bench\target\lib\*" org.openjdk.jmh.Main !REST! & exit /b !ERRORLEVEL! )
if /i "%VERB%"=="notices" ( sort /unique "%HERE%\app\target\third-party.txt" & findstr /b /c:"picocli" "%HERE%\cli\target\third-party.txt" & exit /b 0 )
"%JDK%\bin\java" --enable-native-access=ALL-UNNAMED -cp "%HERE%\cli\target\greenbead-cli-0.1.0.jar;%HERE%\cli\target\lib\*" org.greenbead.cli.Main %*
exit /b %ERRORLEVEL%

:try
if "%~1"=="" exit /b 0
if not exist "%~1\bin\javac.exe" exit /b 0
for /f "tokens=3" %%V in ('"%~1\bin\java" -version 2^>^&1 ^| findstr /i "version"') do set "V=%%~V"
for /f "delims=." %%M in ("%V%") do if %%M GEQ 25 set "JDK=%~1"
exit /b 0

:maven
where mvn >nul 2>nul && exit /b 0
echo greenbead: Maven is missing; install Maven 3.8.7 or newer. 1>&2
exit /b 1

:build
if exist "%HERE%\app\target\fx" if exist "%HERE%\cli\target\lib" exit /b 0
call :maven || exit /b 1
echo greenbead: building ... 1>&2
pushd "%HERE%" & call mvn -B -ntp -q -DskipTests -Dspotless.check.skip=true install & set "RC=!ERRORLEVEL!" & popd
exit /b %RC%
