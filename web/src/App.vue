<template>
  <RouterView />
</template>
